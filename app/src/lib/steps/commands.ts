import type { Command } from '$lib/desk/command';
import type { Step } from '$lib/desk/steps';
import { BLOCK_IN } from './block-in/commands';
import { COLOUR } from './colour/commands';
import { EVERYWHERE } from './everywhere';
import { IN_STACK } from './in-stack';
import { LINES } from './lines';
import { CROSSHAIR } from './crosshair';
import { EXPORT } from './export/commands';
import { MOUNT } from './mount/commands';
import { PROOF } from './proof/commands';
import { REFINE } from './refine/commands';

/** Every command. Where several share a key, the first that is offered takes it, so steps come before everywhere. */
export const COMMANDS: readonly Command[] = [
  ...MOUNT,
  ...BLOCK_IN,
  ...REFINE,
  ...COLOUR,
  ...PROOF,
  ...EXPORT,
  ...EVERYWHERE,
  ...IN_STACK,
  ...LINES,
  ...CROSSHAIR,
];

/** The ledge of each step: at most nine, in the order they are used; null is a gap. */
export const LEDGE: Readonly<Record<Step, readonly (string | null)[]>> = {
  mount: [
    'add-picture',
    'lock-picture',
    null,
    'level',
    'square-up',
    'crop',
    'real-size',
    'origin',
    null,
    'swap-picture',
    'sheet',
  ],
  'block-in': [
    'new-path-here',
    'close-path',
    'end-path',
    'take-back',
    null,
    'turn-last',
    'carry',
    'reach',
    'snap',
    null,
    'make-hole',
  ],
  refine: [
    'turn-kind',
    'flow-all',
    'add-anchor',
    'remove-anchor',
    'thin-out',
    'settle',
    null,
    'make-hole',
    'free-hole',
    null,
    'show-hide',
  ],
  colour: [
    'body-tone',
    'sample-pixel',
    'sample-disc',
    'brush',
    'keep-chip',
    'no-fill',
    null,
    'glass-picture',
    'glass-both',
    'glass-drawing',
  ],
  proof: [
    'glass-picture',
    'glass-both',
    'glass-drawing',
    'glass-before',
    null,
    'keep-copy',
    'replay',
    'show-picture',
    'show-hide',
  ],
  export: ['save-file', 'copy-svg', 'copy-picture', null, 'bench'],
};

const byId = new Map(COMMANDS.map((c) => [c.id, c]));

export function command(id: string): Command {
  const found = byId.get(id);
  if (!found) throw new Error(`There is no command ${id}.`);
  return found;
}
