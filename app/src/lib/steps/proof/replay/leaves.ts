// The stem of a replay: a leaf for each change, larger for more anchors.

/** A leaf on the stem. */
export interface Leaf {
  /** Where it sprouts, 0 to 1 along the stem, and the number of changes that are done there. */
  readonly at: number;
  readonly changes: number;
  /** 0 to 1: how many anchors came or went. */
  readonly size: number;
  readonly up: boolean;
}

/**
 * Leaves for changes, those that stand too close for their own taken together.
 *
 * @param anchors after each number of changes, 0 included
 * @param most leaves that there is room for
 */
export function leavesOf(anchors: Int32Array, most: number): Leaf[] {
  const count = anchors.length - 1;
  const each = Math.max(1, Math.ceil(count / Math.max(1, most)));
  const leaves: Leaf[] = [];
  for (let from = 0; from < count; from += each) {
    const to = Math.min(count, from + each);
    let moved = 0;
    for (let i = from; i < to; i++) moved += Math.abs(anchors[i + 1]! - anchors[i]!);
    // A hundred anchors at once are a leaf as large as they come.
    const size = Math.min(1, Math.log2(1 + moved / (to - from)) / Math.log2(101));
    leaves.push({ at: to / count, changes: to, size, up: leaves.length % 2 === 0 });
  }
  return leaves;
}
