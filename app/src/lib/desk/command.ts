import type { Component } from 'svelte';
import type { Step } from './steps';
import type { Workplace } from './workplace.svelte';

/** Something the user can have done: by the ledge, a key, or the finder. All three read the same list. */
export interface Command {
  readonly id: string;
  readonly title: string;
  readonly icon?: Component<{ size?: number; strokeWidth?: number }>;
  /** Keys as written on the keys sheet: "J", "Shift+J", "Mod+Z", "Delete". */
  readonly keys?: readonly string[];
  /** Steps in which its keys work and it is offered; all when left out. */
  readonly steps?: readonly Step[];
  /** Whether it can do anything now; always when left out. */
  when?(w: Workplace): boolean;
  /** What it would do now, in the tooltip, when that is more than its title. */
  says?(w: Workplace): string;
  /** For a switch: whether it is on. */
  on?(w: Workplace): boolean;
  run(w: Workplace, event?: { readonly repeat: boolean }): void;
}

export const isOffered = (c: Command, w: Workplace): boolean =>
  (!c.steps || c.steps.includes(w.desk.step)) && (c.when?.(w) ?? true);

/** The name of a key press as commands write it. Letters by what they print, digits by their place. */
export function keyName(
  e: Pick<KeyboardEvent, 'key' | 'code' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>,
): string {
  // The number pad prints digits, or with NumLock off is arrows and the like: there the key itself says which.
  const digit = /^Digit(\d)$/.exec(e.code)?.[1];
  const named: Readonly<Record<string, string>> = {
    ArrowUp: '↑',
    ArrowDown: '↓',
    ArrowLeft: '←',
    ArrowRight: '→',
    ' ': 'Space',
  };
  let key = digit ?? named[e.key] ?? (e.key.length === 1 ? e.key.toUpperCase() : e.key);
  // "+", "-" and "?" need Shift on some keyboards: they are named by what they print.
  const printed = ['+', '-', '?', '='].includes(key);
  if (key === '=') key = '+';
  const parts = [
    e.ctrlKey || e.metaKey ? 'Mod' : null,
    e.shiftKey && !printed ? 'Shift' : null,
    e.altKey ? 'Alt' : null,
    key,
  ];
  return parts.filter(Boolean).join('+');
}

/** The command a key press means here, or null. */
export const commandForKey = (commands: readonly Command[], name: string, w: Workplace): Command | null =>
  commands.find((c) => c.keys?.includes(name) && isOffered(c, w)) ?? null;

/** Whether something is chosen, for commands on it. */
export const hasChosen = ({ desk: { choice } }: Workplace): boolean =>
  choice.shapes.length + choice.nodes.length > 0;
