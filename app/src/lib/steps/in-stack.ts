import CornerRightDown from '@lucide/svelte/icons/corner-right-down';
import Paintbrush from '@lucide/svelte/icons/paintbrush';
import Eye from '@lucide/svelte/icons/eye';
import Fence from '@lucide/svelte/icons/fence';
import Flashlight from '@lucide/svelte/icons/flashlight';
import Lock from '@lucide/svelte/icons/lock';
import { nodesOf, restack, setNode, together, type StackMove } from '@mirrot/core';
import { isApart, turnApart } from '$lib/edits/apart';
import { duplicateChosen } from '$lib/edits/copying';
import { freeChosenGroups, goInto, groupChosen, groupsChosen, lonelyGroup } from '$lib/edits/grouping';
import { groupAround, groupBeside, moveIntoGroup, moveOutOfGroup } from '$lib/edits/nesting';
import type * as Lettering from '$lib/edits/lettering';
import type * as Repeating from '$lib/edits/repeating';
import { deleteChosen } from '$lib/edits/shaping';
import { chosenNodes } from '$lib/desk/choice';
import { hasChosen, type Command } from '$lib/desk/command';
import type { Desk } from '$lib/desk/desk.svelte';
import { whenFetched } from '$lib/desk/when-fetched';
import { TASK_WORDS } from '$lib/desk/task';

// What is done to things in the stack, in every step: moved, grouped, copied, set apart, hidden and locked.

/** Turns something on for all that is chosen, or off where it is on for all of it. `words` are for off and on. */
const turning = (
  id: string,
  title: string,
  icon: Command['icon'],
  key: string,
  what: 'shown' | 'locked',
  words: readonly [string, string],
): Command => ({
  id,
  title,
  icon,
  keys: [key],
  when: hasChosen,
  run({ desk }) {
    const nodes = nodesOf(desk.art, chosenNodes(desk.choice, desk.art));
    const on = !nodes.every((node) => node[what]);
    desk.change(words[Number(on)]!, together(...nodes.map((node) => setNode(node.id, { [what]: on }))));
  },
});

/** Wanted once a drawing at most, so it comes when it is. */
const layBackground = (desk: Desk, area: 'sheet' | 'drawing'): void =>
  whenFetched(desk, import('$lib/edits/background'), ({ layBackgroundOf }) => layBackgroundOf(desk, area));

/** Copies are made now and then, so what makes them comes when it is wanted. */
const repeating = (desk: Desk, run: (ways: typeof Repeating) => void): void =>
  whenFetched(desk, import('$lib/edits/repeating'), run);

/** Text is written now and then too. */
const lettering = (desk: Desk, run: (ways: typeof Lettering) => void): void =>
  whenFetched(desk, import('$lib/edits/lettering'), run);

/** A press on a shape that says what is done to what is chosen. */
const pressedNext = (kind: 'go-under' | 'take-look', title: string, icon: Command['icon']): Command => ({
  id: kind,
  title,
  icon,
  when: (w) => hasChosen(w) && !w.desk.live,
  on: (w) => w.desk.pointing.task?.kind === kind,
  run({ desk }) {
    const on = desk.pointing.task?.kind === kind;
    desk.pointing.task = on ? null : { kind };
    if (!on) desk.say(TASK_WORDS[kind]);
  },
});

const stack: Command[] = (
  [
    ['up', 'Move up in the stack', 'Mod+↑'],
    ['down', 'Move down in the stack', 'Mod+↓'],
    ['top', 'Move to the top', 'Mod+Shift+↑'],
    ['bottom', 'Move to the bottom', 'Mod+Shift+↓'],
  ] as const satisfies readonly (readonly [StackMove, string, string])[]
).map(([move, title, key]) => ({
  id: `stack-${move}`,
  title,
  keys: [key],
  when: hasChosen,
  run: (w) => void w.desk.change(title, restack(chosenNodes(w.desk.choice, w.desk.art), move)),
}));

export const IN_STACK: readonly Command[] = [
  turning('show-hide', 'Hide or show', Eye, 'H', 'shown', ['Hide', 'Show']),
  {
    id: 'group',
    title: 'Group',
    keys: ['Mod+G'],
    when: ({ desk }) => chosenNodes(desk.choice, desk.art).length > 0 && !desk.live,
    run: ({ desk }) => groupChosen(desk),
  },
  {
    id: 'free-group',
    title: 'Free the group',
    keys: ['Mod+Shift+G'],
    when: ({ desk }) => groupsChosen(desk).length > 0,
    run: ({ desk }) => freeChosenGroups(desk),
  },
  {
    id: 'go-into-group',
    title: 'Work in the group',
    keys: ['Enter'],
    steps: ['mount', 'refine', 'colour', 'proof', 'export'],
    when: ({ desk }) => lonelyGroup(desk) !== null && !desk.live,
    run: ({ desk }) => goInto(desk, lonelyGroup(desk)!.id),
  },
  {
    id: 'leave-group',
    title: 'Leave the group worked in',
    when: ({ desk }) => desk.choosing.focus !== null,
    run: ({ desk }) => void desk.choosing.leaveFocus(),
  },
  {
    id: 'into-group',
    title: 'Move into the group beside it',
    keys: ['Mod+→'],
    when: ({ desk }) => groupBeside(desk) !== null,
    run: ({ desk }) => moveIntoGroup(desk),
  },
  {
    id: 'out-of-group',
    title: 'Move out of its group',
    keys: ['Mod+←'],
    when: ({ desk }) => groupAround(desk) !== null,
    run: ({ desk }) => moveOutOfGroup(desk),
  },
  {
    id: 'show-only',
    title: 'Show only this',
    icon: Flashlight,
    keys: ['Shift+H'],
    when: (w) => hasChosen(w) || isApart(w.desk, 'hidden'),
    on: ({ desk }) => isApart(desk, 'hidden'),
    run: ({ desk }) => turnApart(desk, 'hidden'),
  },
  {
    id: 'lock-others',
    title: 'Lock all but this',
    icon: Fence,
    keys: ['Shift+Y'],
    when: (w) => hasChosen(w) || isApart(w.desk, 'locked'),
    on: ({ desk }) => isApart(desk, 'locked'),
    run: ({ desk }) => turnApart(desk, 'locked'),
  },
  {
    id: 'copy',
    title: 'Copy',
    keys: ['Mod+C'],
    when: (w) => hasChosen(w) && !w.desk.live,
    // Heard as the browser's own event, which has the clipboard with it.
    run: () => void document.execCommand('copy'),
  },
  {
    id: 'cut',
    title: 'Cut',
    keys: ['Mod+X'],
    when: (w) => hasChosen(w) && !w.desk.live,
    run: () => void document.execCommand('cut'),
  },
  {
    id: 'duplicate',
    title: 'Duplicate',
    keys: ['Mod+D'],
    when: (w) => hasChosen(w) && !w.desk.live,
    run: ({ desk }) => duplicateChosen(desk),
  },
  {
    id: 'row-copies',
    title: 'Repeat in a row',
    when: (w) => hasChosen(w) && !w.desk.live,
    run: ({ desk }) => repeating(desk, ({ rowOfChosen }) => rowOfChosen(desk)),
  },
  {
    id: 'ring-copies',
    title: 'Repeat round a centre',
    when: (w) => hasChosen(w) && !w.desk.live,
    on: (w) => w.desk.pointing.task?.kind === 'ring-centre',
    run({ desk }) {
      const on = desk.pointing.task?.kind === 'ring-centre';
      desk.pointing.task = on ? null : { kind: 'ring-centre' };
      if (!on) desk.say(TASK_WORDS['ring-centre']);
    },
  },
  {
    id: 'mirrored-copy',
    title: 'Mirrored copy',
    when: (w) => hasChosen(w) && !w.desk.live,
    run: ({ desk }) => repeating(desk, ({ mirroredCopy }) => mirroredCopy(desk)),
  },
  {
    id: 'part-copies',
    title: 'Part the copies',
    when: ({ desk }) => groupsChosen(desk).some(({ repeat }) => repeat),
    run: ({ desk }) => repeating(desk, ({ partChosen }) => partChosen(desk)),
  },
  {
    id: 'line-of-text',
    title: 'Write a line of text',
    when: ({ desk }) => !desk.live,
    run: ({ desk }) => lettering(desk, ({ writeLine }) => void writeLine(desk)),
  },
  {
    id: 'text-to-paths',
    title: 'Make the text paths',
    when: ({ desk }) => desk.choice.shapes.length < 100 && desk.chosenShapes.some((s) => s.lettering),
    run: ({ desk }) => lettering(desk, ({ makePaths }) => makePaths(desk)),
  },
  turning('lock', 'Lock or unlock', Lock, 'Y', 'locked', ['Unlock', 'Lock']),
  {
    id: 'delete',
    title: 'Delete what is chosen',
    keys: ['Delete'],
    when: (w) => hasChosen(w) && !w.desk.live,
    run: (w) => deleteChosen(w.desk),
  },
  {
    id: 'background-sheet',
    title: 'Lay a background as large as the sheet',
    run: ({ desk }) => layBackground(desk, 'sheet'),
  },
  {
    id: 'background-drawing',
    title: 'Lay a background round the drawing',
    run: ({ desk }) => layBackground(desk, 'drawing'),
  },
  ...stack,
  pressedNext('go-under', 'Under the one pressed next', CornerRightDown),
  pressedNext('take-look', 'Take the look of the one pressed next', Paintbrush),
];
