import Blend from '@lucide/svelte/icons/blend';
import Image from '@lucide/svelte/icons/image';
import Shapes from '@lucide/svelte/icons/shapes';
import type { Command } from '$lib/desk/command';

const glassAt = (id: string, title: string, icon: Command['icon'], value: number): Command => ({
  id,
  title,
  icon,
  steps: ['proof', 'colour', 'block-in', 'refine'],
  on: (w) => w.desk.looking.glass === value,
  run: (w) => void (w.desk.looking.glass = value),
});

export const PROOF: readonly Command[] = [
  glassAt('glass-picture', 'Picture only', Image, 0),
  glassAt('glass-both', 'Both', Blend, 50),
  glassAt('glass-drawing', 'Drawing only', Shapes, 100),
];
