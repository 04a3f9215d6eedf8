import type { Habits } from './habits.svelte';

export type Column = 'stack' | 'eye';

/** Pages narrower than this have the column over the bed instead of beside it, CSS pixels. */
const FOLDS_BELOW_PX: Readonly<Record<Column, number>> = { eye: 1000, stack: 760 };

/** The columns beside the bed. On narrow pages they lie over it, one at a time, and only while they are asked for. */
export class Columns {
  /** Width of the page, CSS pixels. */
  width = $state(1280);
  #over: Column | null = $state(null);
  readonly #habits: Habits;

  constructor(habits: Habits) {
    this.#habits = habits;
  }

  /** Whether a column lies over the bed. */
  folds(column: Column): boolean {
    return this.width < FOLDS_BELOW_PX[column];
  }
  shown(column: Column): boolean {
    if (this.folds(column)) return this.#over === column;
    return column === 'eye' ? this.#habits.eyeOpen : this.#habits.stackOpen;
  }
  turn(column: Column): void {
    if (this.folds(column)) this.#over = this.#over === column ? null : column;
    else if (column === 'eye') this.#habits.set({ eyeOpen: !this.#habits.eyeOpen });
    else this.#habits.set({ stackOpen: !this.#habits.stackOpen });
  }
  /** Takes away what lies over the bed; false when nothing does. */
  clear(): boolean {
    const over = this.#over !== null && this.folds(this.#over);
    this.#over = null;
    return over;
  }
}
