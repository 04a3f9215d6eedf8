import { FIRST_MACHINE, PLAIN_LINES } from '@mirrot/core';
import { z } from 'zod';
import { FIRST_EXPORT, type Exporting } from '$lib/desk/exporting';

// What files are made for, as the user set it: kept in the browser under names of their own.

const KEY = 'mirrot-made-for';
/** As many as anyone looks through. */
export const MOST_PRESETS = 40;
const LONGEST_NAME = 60;

const positive = z.number().positive().max(1e6);
const lengthPx = z.number().min(0).max(1e6);
const exportingSchema: z.ZodType<Exporting> = z.object({
  format: z.enum(['svg', 'png', 'webp', 'pdf', 'eps', 'dxf', 'plt', 'zip', 'txt']),
  area: z.enum(['sheet', 'drawing', 'chosen']),
  margin: lengthPx,
  scale: positive,
  ground: z.union([z.literal('clear'), z.string().regex(/^#[0-9a-f]{6}$/)]),
  ppi: z.number().min(1).max(2400),
  each: z.enum(['one', 'layer', 'shape']),
  widths: z.array(z.number().int().min(1).max(20_000)).max(20),
  picture: z.boolean(),
  plain: z.boolean(),
  hairlines: z.boolean(),
  lines: z.object({
    seen: z.boolean(),
    weighted: z.boolean(),
    bladeMargin: lengthPx,
    thinned: lengthPx,
    marks: z.boolean(),
    mirrored: z.boolean(),
    uses: z.record(z.string(), z.enum(['draw', 'score', 'cut', 'none'])),
  }),
  shortWay: z.boolean(),
  machine: z.object({
    tool: z.enum(['pen', 'knife']),
    lineWidth: positive,
    speed: positive,
    travelSpeed: positive,
    acceleration: positive,
    liftTime: z.number().min(0).max(10),
    bladeOffset: z.number().min(0).max(5),
    placesPerSecond: positive,
  }),
  leadBlade: z.boolean(),
});
const presetSchema = z.object({ name: z.string().min(1).max(LONGEST_NAME), asks: exportingSchema });

/** Settings kept under a name. */
export type Preset = z.infer<typeof presetSchema>;

/** What is kept; what of it does not fit any more is left out. */
export function readPresets(text: string | null | undefined): readonly Preset[] {
  try {
    const list: unknown = JSON.parse(text ?? '[]');
    if (!Array.isArray(list)) return [];
    return list.flatMap((one) => {
      const asks = { ...FIRST_EXPORT, ...(one as Partial<Preset>)?.asks };
      const lines = { ...PLAIN_LINES, ...asks.lines };
      const machine = { ...FIRST_MACHINE, ...asks.machine };
      const read = presetSchema.safeParse({ ...one, asks: { ...asks, lines, machine } });
      return read.success ? [read.data] : [];
    });
  } catch {
    return [];
  }
}

class Presets {
  list: readonly Preset[] = $state.raw(readPresets(globalThis.localStorage?.getItem(KEY)));

  /** Keeps settings under a name; those that had it before go. Layers' uses are of one project: they stay out. */
  keep(name: string, asks: Exporting): boolean {
    const called = name.trim().slice(0, LONGEST_NAME);
    if (called === '') return false;
    const own = { name: called, asks: { ...asks, lines: { ...asks.lines, uses: {} } } };
    return this.#store([...this.list.filter((one) => one.name !== called), own].slice(-MOST_PRESETS));
  }
  forget(name: string): void {
    this.#store(this.list.filter((one) => one.name !== name));
  }
  #store(list: readonly Preset[]): boolean {
    try {
      localStorage.setItem(KEY, JSON.stringify(list));
    } catch {
      return false;
    }
    this.list = list;
    return true;
  }
}
export const presets = new Presets();
