import { createContext, type Component } from 'svelte';
import type { PressMachine } from '$lib/bed/behaviour';
import type { Command } from '$lib/desk/command';
import type { Keyboard } from '$lib/desk/keyboard';
import type { Step } from '$lib/desk/steps';
import type { DialogName, Workplace } from '$lib/desk/workplace.svelte';

/** A part of the page that comes when it is first wanted. */
export type Later = () => Promise<{ readonly default: Component<{ workplace: Workplace }> }>;

/** What the steps bring to the desk. The page brings both together; neither knows the other. */
export interface StepSet {
  readonly commands: readonly Command[];
  /** @throws Error when there is none of this id */
  command(id: string): Command;
  /** Commands of each step's ledge in the order they are used; null is a gap. */
  readonly ledge: Readonly<Record<Step, readonly (string | null)[]>>;
  readonly panels: Readonly<Record<Step, Later>>;
  readonly dialogs: Readonly<Partial<Record<DialogName, Later>>>;
  /** What stands where the bed is while it is shown. */
  readonly bench: Later;
  readonly replay: Later;
  keyboard(workplace: Workplace, machine: PressMachine): Keyboard;
}

export const [stepSet, provideStepSet] = createContext<StepSet>();
