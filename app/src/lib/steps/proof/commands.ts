import Blend from '@lucide/svelte/icons/blend';
import Image from '@lucide/svelte/icons/image';
import Shapes from '@lucide/svelte/icons/shapes';
import PencilLine from '@lucide/svelte/icons/pencil-line';
import Spline from '@lucide/svelte/icons/spline';
import type { Command } from '$lib/desk/command';

/** Loaded when it is first wanted. */
const view = () => import('./view');

const glassAt = (id: string, title: string, icon: Command['icon'], value: number): Command => ({
  id,
  title,
  icon,
  steps: ['proof', 'colour', 'block-in', 'refine'],
  on: (w) => w.desk.looking.glass === value,
  run: (w) => void (w.desk.looking.glass = value),
});

/** A way to compare, turned on and off. */
const compared = (id: string, title: string, icon: Command['icon'], of: 'difference' | 'lines'): Command => ({ id, title, icon, steps: ['proof'], on: (w) => w.desk.comparing[of], run: (w) => void (w.desk.comparing[of] = !w.desk.comparing[of]) }); // prettier-ignore

export const PROOF: readonly Command[] = [
  glassAt('glass-picture', 'Picture only', Image, 0),
  glassAt('glass-both', 'Both', Blend, 50),
  glassAt('glass-drawing', 'Drawing only', Shapes, 100),
  compared('difference', 'Difference', Blend, 'difference'),
  compared('lines-only', 'Lines only', Spline, 'lines'),
  { id: 'replay', title: 'Replay', icon: PencilLine, steps: ['proof'], on: (w) => w.replayShown, run: (w) => void (w.replayShown = !w.replayShown) }, // prettier-ignore
  {
    id: 'copy-view',
    title: 'Copy the view',
    icon: Image,
    steps: ['proof'],
    run: (w) => void view().then(({ copyView }) => copyView(w)),
  },
  {
    id: 'save-view',
    title: 'Save the view',
    icon: Image,
    steps: ['proof'],
    run: (w) => void view().then(({ saveView }) => saveView(w)),
  },
];
