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

const figure = (v: number): string => v.toFixed(v < 1 ? 4 : 2).padStart(10);

/** One line: what was done, our time, the other one's, how many times as long that is, and what the other one is. */
export const row = (what: string, ours: number, other: number, how: string): void =>
  console.log(
    `  ${what.padEnd(34)}${figure(ours)} ${figure(other)}   ${(other / ours).toFixed(1)} times   ${how}`,
  );
