import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine';
import {
  draggable,
  dropTargetForElements,
  monitorForElements,
} from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import type { Attachment } from 'svelte/attachments';

// Rows dragged by the pointer to another place in the stack, in its column or in the list of a spot.

/** What the stack hears of a drag. Rows are told by the ids of their nodes. */
export interface RowDragging {
  /** The list that the rows are of: drags of other lists are not heard. */
  readonly list: 'stack' | 'spot';
  canDrag(row: string): boolean;
  begun(row: string): void;
  /** The pointer is over a row, at a share of its height from the top; null where it is over none. */
  over(target: { readonly row: string; readonly share: number } | null): void;
  /** It ended; where the pointer was last over a row, what was dragged goes there. */
  dropped(): void;
}

/** Makes a row one that can be dragged and dropped on. */
export const dragRow =
  (row: string, by: RowDragging): Attachment<HTMLElement> =>
  (element) =>
    combine(
      draggable({ element, canDrag: () => by.canDrag(row), getInitialData: () => ({ row, list: by.list }) }),
      dropTargetForElements({
        element,
        canDrop: ({ source }) => source.data.list === by.list,
        getData({ input }) {
          const { top, height } = element.getBoundingClientRect();
          return { row, share: (input.clientY - top) / height };
        },
      }),
    );

/** Tells of every drag of a row, until it is called off by what is returned. */
export const watchRows = (by: RowDragging): (() => void) =>
  monitorForElements({
    canMonitor: ({ source }) => source.data.list === by.list,
    onDragStart: ({ source }) => by.begun(source.data.row as string),
    onDrag: ({ location }) =>
      by.over((location.current.dropTargets[0]?.data as { row: string; share: number } | undefined) ?? null),
    onDrop({ location }) {
      by.over((location.current.dropTargets[0]?.data as { row: string; share: number } | undefined) ?? null);
      by.dropped();
    },
  });
