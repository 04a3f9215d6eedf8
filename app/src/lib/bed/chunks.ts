/** Items in one chunk of a long list. */
const CHUNK = 64;

/**
 * Cuts a list into chunks that stay the same arrays while nothing in them changes. What is drawn of a list of thousands
 * then looks at the chunks, and at the items of the one chunk that changed, not at every item.
 *
 * @returns takes the list as it is now, and gives its chunks in order
 */
export function chunker<T>(): (list: readonly T[]) => readonly (readonly T[])[] {
  let before: readonly (readonly T[])[] = [];
  return (list) => {
    const chunks: (readonly T[])[] = [];
    for (let from = 0; from < list.length; from += CHUNK) {
      const old = before[chunks.length];
      const length = Math.min(CHUNK, list.length - from);
      let same = old?.length === length;
      for (let i = 0; same && i < length; i++) same = old![i] === list[from + i];
      chunks.push(same ? old! : list.slice(from, from + length));
    }
    return (before = chunks);
  };
}
