import type { Attachment } from 'svelte/attachments';
import type * as Dragging from './row-dragging';

/** Makes a row one that can be dragged and dropped on. */
export type AttachRow = (row: string) => Attachment<HTMLElement>;

/**
 * Loads what dragging rows takes, and hears of every drag until it is called off by what is returned.
 *
 * @param ready is given what makes rows draggable; with the server gone before it was fetched, rows are moved by keys
 */
export function beginDragging(by: Dragging.RowDragging, ready: (attach: AttachRow) => void): () => void {
  let over = false;
  let unwatch = (): void => {};
  import('./row-dragging')
    .then(({ dragRow, watchRows }) => {
      if (over) return;
      ready((row) => dragRow(row, by));
      unwatch = watchRows(by);
    })
    .catch(() => {});
  return () => {
    over = true;
    unwatch();
  };
}
