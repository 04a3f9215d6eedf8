import { PX_PER, type Unit } from '@mirrot/core';

export interface Tick {
  /** Bed pixels along the ruler. */
  readonly at: number;
  /** What stands beside it; null for a tick between. */
  readonly text: string | null;
}

/** The least room between numbered ticks, bed pixels. */
const ROOM = 56;

/** Ticks of a ruler: steps of 1, 2 or 5 times a power of ten of the unit, five or so between two numbers. */
export function rulerTicks(scale: number, shift: number, length: number, unit: Unit): Tick[] {
  const per = PX_PER[unit] * scale;
  const least = ROOM / per;
  const power = 10 ** Math.floor(Math.log10(least));
  const step = [1, 2, 5, 10].map((k) => k * power).find((s) => s >= least)!;
  const parts = Math.round(step / power) === 2 ? 4 : 5;
  const small = step / parts;
  const first = Math.ceil(-shift / per / small);
  const last = Math.floor((length - shift) / per / small);
  const digits = Math.max(0, -Math.floor(Math.log10(step)));
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => {
    const n = first + i;
    return { at: n * small * per + shift, text: n % parts === 0 ? (n * small).toFixed(digits) : null };
  });
}
