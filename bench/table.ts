/** Least time of a few runs, in milliseconds. */
export function time(work: () => void, times = 3): number {
  let least = Infinity;
  for (let i = 0; i < times; i++) {
    const from = performance.now();
    work();
    least = Math.min(least, performance.now() - from);
  }
  return least;
}

/** Least times of two ways by turns, so that both meet the machine in the same moods. */
export function beside(ours: () => void, theirs: () => void, times = 9): readonly [number, number] {
  let [a, b] = [Infinity, Infinity];
  for (let i = 0; i < times; i++) {
    a = Math.min(a, time(ours, 1));
    b = Math.min(b, time(theirs, 1));
  }
  return [a, b];
}

const figure = (v: number): string => v.toFixed(v < 1 ? 4 : 2).padStart(10);

/** One line: what was done, our time, the other one's, how many times as long that is, and what the other one is. */
export const row = (what: string, ours: number, other: number, how: string): void =>
  console.log(
    `  ${what.padEnd(34)}${figure(ours)} ${figure(other)}   ${(other / ours).toFixed(1)} times   ${how}`,
  );
