import { migrateArt } from './migrate';
import { ART_VERSION } from './limits';
import { plainStroke } from './paint';
import { patchDocument, type Patch } from './patch';
import type { Art, ArtNode, Group, Layer, Shape } from './schema';
import { shapesOf } from './tree';

// How a drawing grew: what it began as, and the changes that came to it.

/** A change as the journal has it. */
export interface GrownChange {
  readonly revision: number;
  /** Version of the document that its patches fit. */
  readonly version: number;
  /** When it was made; ISO 8601, UTC. */
  readonly at: string;
  readonly patches: readonly Patch[];
}

/** A drawing's beginning and all that came to it since, oldest first. */
export interface Growth {
  /** The document as it was, of whatever version. */
  readonly beginning: unknown;
  readonly changes: readonly GrownChange[];
}

/** A drawing at every moment of its growth. */
export interface Grown {
  /** How many changes there were. */
  readonly count: number;
  /** The drawing after so many changes, 0 for the beginning. */
  artAt(changes: number): Art;
  /** Anchors after each number of changes, 0 included. */
  readonly anchors: Int32Array;
  /** Milliseconds of work up to each; what lies between changes far apart is no work. */
  readonly workMs: Float64Array;
}

/** A pause longer than this is no work, milliseconds (common practice, no source). */
export const PAUSE_MS = 5 * 60_000;
/** Drawings kept on the way, from which those between are worked out. */
const MOST_KEPT = 256;

const counted = new WeakMap<Shape, number>();
function anchorsOf(shape: Shape): number {
  let count = counted.get(shape);
  if (count === undefined)
    counted.set(shape, (count = shape.paths.reduce((sum, path) => sum + path.anchors.length, 0)));
  return count;
}

/**
 * Follows a drawing's growth.
 *
 * @throws MirrotError `change` where a change does not fit what was there
 */
export function followGrowth({ beginning, changes }: Growth): Grown {
  const after = (art: Art, { version, patches }: GrownChange): Art =>
    patchDocument(migrateArt(art, version) as Art, patches).document;
  const every = Math.max(1, Math.ceil(changes.length / MOST_KEPT));
  const anchors = new Int32Array(changes.length + 1);
  const workMs = new Float64Array(changes.length + 1);
  const count = (art: Art): number => shapesOf(art).reduce((sum, { shape }) => sum + anchorsOf(shape), 0);
  let now = beginning as Art;
  const kept: Art[] = [now];
  anchors[0] = count(now);
  changes.forEach((change, i) => {
    now = after(now, change);
    if ((i + 1) % every === 0) kept.push(now);
    anchors[i + 1] = count(now);
    const since = i === 0 ? 0 : Date.parse(change.at) - Date.parse(changes[i - 1]!.at);
    // A clock that jumps back, or on, is no work either.
    workMs[i + 1] = workMs[i]! + (since > 0 && since <= PAUSE_MS ? since : 0);
  });
  return {
    count: changes.length,
    anchors,
    workMs,
    artAt(n) {
      const wanted = Math.min(changes.length, Math.max(0, Math.round(n)));
      const from = Math.floor(wanted / every);
      const art = changes.slice(from * every, wanted).reduce(after, kept[from]!);
      return migrateArt(art, ART_VERSION) as Art;
    },
  };
}

/** The ink of a line that has neither fill nor stroke yet, and its width as a share of the sheet's longer side. */
const TRACED_INK = '#2340c7';
const TRACED_SHARE = 1 / 400;

/** A drawing with what is not painted yet as thin lines: so it is seen while it grows. */
export function withTracedLines(art: Art): Art {
  const stroke = plainStroke({ hex: TRACED_INK }, Math.max(art.sheet.width, art.sheet.height) * TRACED_SHARE);
  const inked = (node: ArtNode): ArtNode =>
    node.type === 'group' ? ({ ...node, children: node.children.map(inked) } satisfies Group)
    : node.type === 'shape' && node.fill === null && node.stroke === null ? { ...node, stroke }
    : node; // prettier-ignore
  return {
    ...art,
    layers: art.layers.map((layer): Layer => ({ ...layer, children: layer.children.map(inked) })),
  };
}
