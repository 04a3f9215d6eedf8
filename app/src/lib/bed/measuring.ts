import {
  add,
  apply,
  distance,
  formatLength,
  invert,
  meanScale,
  snapAngle,
  subtract,
  type Crossed,
  type Point,
} from '@mirrot/core';
import { rasterMap, type DriftSettings } from '$lib/desk/drifts.svelte';
import type { Desk } from '$lib/desk/desk.svelte';
import type { Rule, Task } from '$lib/desk/task';
import { newestWish } from '$lib/desk/work-loop';
import { reachWorker } from '$lib/workers/trace';
import type { BedPointer, Grip } from './behaviour';
import { EIGHTH_TURN, lengthAndAngle } from './grips';
import { snapAt } from './snapping';

type Measure = Extract<Task, { kind: 'measure' }>;

/** What a line on the sheet crosses, found away from the page. */
async function crossed(by: DriftSettings, { from, to }: Rule): Promise<Crossed | null> {
  const back = invert(rasterMap(by));
  if (!back) return null;
  const { key, pixels } = by.raster;
  return reachWorker.ask(key, pixels, (work) => work.across(key, apply(back, from), apply(back, to)));
}

/** Shows what the line that is measured crosses, once it is found. */
const crossings = newestWish(async ({ desk, rule }: { readonly desk: Desk; readonly rule: Rule }) => {
  const by = desk.picture.driftSettings;
  const found = by && (await crossed(by, rule).catch(() => null));
  const { task } = desk.pointing;
  if (!by || !found || task?.kind !== 'measure' || task.line !== rule) return;
  const back = invert(rasterMap(by))!;
  const long = distance(apply(back, rule.from), apply(back, rule.to));
  const { step } = by.raster;
  desk.pointing.task = {
    ...task,
    crossed: {
      shares: found.edges.map((e) => e / long),
      between: found.between,
      width: found.width === null ? null : found.width * step,
    },
  };
});

/** A drag measures from one thing to another; a click takes the line away. */
export function gripMeasure(desk: Desk, start: BedPointer): Grip {
  const at = (p: BedPointer): Point => {
    const snap = snapAt(desk, p.sheet);
    desk.pointing.snapTarget = snap;
    return snap?.at ?? p.sheet;
  };
  const from = at(start);
  const before = desk.pointing.task as Measure;
  const show = (p: BedPointer): void => {
    const to = p.shift ? add(from, snapAngle(subtract(p.sheet, from), EIGHTH_TURN)) : at(p);
    const line = { from, to };
    desk.pointing.task = { kind: 'measure', line, crossed: null };
    desk.pointing.focus = to;
    crossings.ask({ desk, rule: line });
  };
  const end = (): void => {
    desk.pointing.snapTarget = null;
    desk.pointing.focus = null;
  };
  return {
    drag: show,
    release: end,
    click() {
      desk.pointing.task = { kind: 'measure', line: null, crossed: null };
      end();
    },
    cancel() {
      desk.pointing.task = before;
      end();
    },
  };
}

/** Distance, angle, and the width of the picture's stroke along a measured line, in words. */
export function measureText(desk: Desk, { line, crossed: found }: Measure): string {
  if (!line) return '';
  const d = subtract(line.to, line.from);
  const k = desk.picture.traced ? meanScale(desk.picture.traced.placement) : null;
  const px = k ? ` · ${(Math.hypot(d.x, d.y) / k).toFixed(1)} px` : '';
  const stroke =
    found?.width && k
      ? ` · stroke ${formatLength(found.width * k, desk.art.sheet.unit)}, ${found.width.toFixed(1)} px`
      : '';
  return lengthAndAngle(desk, d) + px + stroke;
}
