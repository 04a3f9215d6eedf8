import { nodesOf } from '@mirrot/core';
import { chosenNodes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { moveTo } from '$lib/edits/nesting';
import { beginDragging, type AttachRow } from './begin-dragging';
import type { RowDragging } from './row-dragging';
import { dropOn, type Drop, type Row } from './rows';

/** What dragging asks of the stack. */
interface Host {
  readonly desk: Desk;
  row(id: string): Row | undefined;
  isFolded(id: string): boolean;
  canDrag(id: string): boolean;
}

/** The drag of rows that goes on, if one does. */
export class RowDrags implements RowDragging {
  readonly list = 'stack';
  /** The row that is dragged. */
  taken: string | null = null;
  /** Where it would land. */
  drop: Drop | null = $state.raw(null);
  /** Makes a row one that can be dragged, once what it takes has been loaded. */
  attach: AttachRow | null = $state.raw(null);
  #ids: readonly string[] = [];
  readonly #host: Host;

  constructor(host: Host) {
    this.#host = host;
  }

  /** Hears of every drag until it is called off by what is returned. */
  readonly begin = (): (() => void) => beginDragging(this, (attach) => (this.attach = attach));

  canDrag(row: string): boolean {
    return this.#host.canDrag(row);
  }
  begun(row: string): void {
    const { desk } = this.#host;
    const chosen = chosenNodes(desk.choice, desk.art);
    this.taken = row;
    // What is chosen goes along with one of it.
    this.#ids = chosen.includes(row) ? chosen : [row];
  }
  over(target: { readonly row: string; readonly share: number } | null): void {
    const { desk } = this.#host;
    const row = target && this.#host.row(target.row);
    this.drop = row
      ? dropOn(desk.art, row, target.share, nodesOf(desk.art, this.#ids), this.#host.isFolded(row.node.id))
      : null;
  }
  dropped(): void {
    if (this.drop) moveTo(this.#host.desk, this.#ids, this.drop.place);
    this.taken = this.drop = null;
  }
}
