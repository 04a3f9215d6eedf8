import { createContext, type Component } from 'svelte';
import type { PressMachine } from '$lib/bed/behaviour';
import type { Command } from '$lib/desk/command';
import type { Step } from '$lib/desk/steps';
import type { DialogName, Workplace } from '$lib/desk/workplace.svelte';

/** Where the keyboard is: on the bed, on a control reached by Tab, or in a text field. */
export type Place = 'bed' | 'control' | 'text';

/** What keys do on the desk. */
export interface Keyboard {
  /** True when the key was used: the browser must not use it too. */
  down(e: KeyboardEvent, place: Place): boolean;
  up(e: KeyboardEvent): void;
  /** The window lost the keyboard: nothing is held any more. */
  blur(): void;
}

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
  keyboard(workplace: Workplace, machine: PressMachine): Keyboard;
}

export const [stepSet, provideStepSet] = createContext<StepSet>();
