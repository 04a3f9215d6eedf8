import { PAUSE_MS, type Art, type Patch } from '@mirrot/core';
import { addCopy } from './copy-rows';
import type { Database } from './database';

// Copies that are kept without being asked for: before something large is done, and once a working hour.

/** A change of so many parts of the drawing is a large one; or of so many bytes as it is kept. */
const LARGE_PATCHES = 100;
const LARGE_BYTES = 100_000;
const HOUR_MS = 3_600_000;

/** How long has been worked on a project since a copy of it was kept by itself. */
interface Work {
  readonly lastChange: number;
  readonly workedMs: number;
}

export class WorkClock {
  readonly #work = new Map<string, Work>();

  /** A change came in: true when an hour has been worked since the last copy. */
  tick(projectId: string, now: number): boolean {
    const { lastChange, workedMs } = this.#work.get(projectId) ?? { lastChange: now, workedMs: 0 };
    const worked = workedMs + (now - lastChange <= PAUSE_MS ? now - lastChange : 0);
    const due = worked >= HOUR_MS;
    this.#work.set(projectId, { lastChange: now, workedMs: due ? 0 : worked });
    return due;
  }
}

/** A change as it comes in: its patches, how large it is kept, and what it is called. */
export interface Incoming {
  readonly patches: readonly Patch[];
  readonly bytes: number;
  readonly label: string | null;
}

/** Why a copy is kept before some changes, in words; null where none is. */
export function reasonToKeep(changes: readonly Incoming[], hourWorked: boolean): string | null {
  const large = changes.find(({ patches, bytes }) => patches.length >= LARGE_PATCHES || bytes >= LARGE_BYTES);
  if (large) return large.label === null ? 'Before a large change' : `Before: ${large.label}`;
  return hourWorked ? 'After an hour of work' : null;
}

/** Keeps the drawing as it was before, in the transaction that changes it. */
export const keepBefore = (
  tx: Database,
  projectId: string,
  before: { readonly art: Art; readonly revision: number },
  name: string,
): Promise<unknown> => addCopy(tx, projectId, before, { name: name.slice(0, 200), byItself: true });
