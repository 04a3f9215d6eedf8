import Blend from '@lucide/svelte/icons/blend';
import Contrast from '@lucide/svelte/icons/contrast';
import Copy from '@lucide/svelte/icons/copy';
import ImageDown from '@lucide/svelte/icons/image-down';
import Image from '@lucide/svelte/icons/image';
import Shapes from '@lucide/svelte/icons/shapes';
import Sprout from '@lucide/svelte/icons/sprout';
import Spline from '@lucide/svelte/icons/spline';
import type { Command } from '$lib/desk/command';
import { copyView, saveView } from './view';

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
  compared('difference', 'Difference', Contrast, 'difference'),
  compared('lines-only', 'Lines only', Spline, 'lines'),
  { id: 'replay', title: 'Replay', icon: Sprout, steps: ['proof'], on: (w) => w.replayShown, run: (w) => void (w.replayShown = !w.replayShown) }, // prettier-ignore
  { id: 'copy-view', title: 'Copy the view', icon: Copy, steps: ['proof'], run: (w) => void copyView(w) },
  {
    id: 'save-view',
    title: 'Save the view',
    icon: ImageDown,
    steps: ['proof'],
    run: (w) => void saveView(w),
  },
];
