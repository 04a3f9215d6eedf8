import { findNode, inPaintOrder } from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { moveTo } from '$lib/edits/nesting';
import { beginDragging, type AttachRow } from './begin-dragging';
import type { RowDragging } from './row-dragging';

/** Shapes at a spot put into another order among themselves, by a drag of their rows or by keys. */
export class SpotDrags implements RowDragging {
  readonly list = 'spot';
  /** The row that what is dragged would land beside. */
  drop: { readonly row: string; readonly side: 'above' | 'below' } | null = $state.raw(null);
  /** Makes a row one that can be dragged, once what it takes has been loaded. */
  attach: AttachRow | null = $state.raw(null);
  #taken: string | null = null;
  readonly #desk: Desk;

  constructor(desk: Desk) {
    this.#desk = desk;
  }

  /** Hears of every drag until it is called off by what is returned. */
  readonly begin = (): (() => void) => beginDragging(this, (attach) => (this.attach = attach));

  canDrag(): boolean {
    return true;
  }
  begun(row: string): void {
    this.#taken = row;
  }
  over(target: { readonly row: string; readonly share: number } | null): void {
    this.drop =
      target && target.row !== this.#taken
        ? { row: target.row, side: target.share < 0.5 ? 'above' : 'below' }
        : null;
  }
  dropped(): void {
    if (this.drop && this.#taken) this.put(this.#taken, this.drop.row, this.drop.side);
    this.#taken = this.drop = null;
  }

  /** Puts a shape just above or below another one, beside which it stands then. */
  put(id: string, other: string, side: 'above' | 'below'): void {
    const found = findNode(this.#desk.art, other);
    if (!found?.parent) return;
    moveTo(this.#desk, [id], { parent: found.parent.id, index: found.index + (side === 'above' ? 1 : 0) });
  }

  /** Shapes as they lie now, the topmost first. */
  sorted(ids: readonly string[]): string[] {
    return inPaintOrder(this.#desk.art, ids).reverse();
  }
}
