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
import { rasterMap, type Measuring } from '$lib/desk/drifts.svelte';
import type { Desk } from '$lib/desk/desk.svelte';
import type { Rule, Task } from '$lib/desk/task';
import { reachWorker } from '$lib/workers/trace';
import type { BedPointer, Grip } from './behaviour';
import { EIGHTH_TURN, lengthAndAngle } from './grips';
import { snapAt } from './snapping';

type Measure = Extract<Task, { kind: 'measure' }>;

/** What a line on the sheet crosses, found away from the page. */
async function crossed(by: Measuring, { from, to }: Rule): Promise<Crossed | null> {
  const back = invert(rasterMap(by));
  if (!back) return null;
  const { key, pixels } = by.raster;
  return reachWorker.ask(key, pixels, (work) => work.across(key, apply(back, from), apply(back, to)));
}

// While one line is looked along, only the newest of the others waits.
let busy = false;
let waiting: Rule | null = null;

async function look(desk: Desk, line: Rule): Promise<void> {
  waiting = line;
  if (busy) return;
  busy = true;
  try {
    while (waiting) {
      const rule: Rule = waiting;
      waiting = null;
      const by = desk.measuring;
      const found = by && (await crossed(by, rule).catch(() => null));
      const { task } = desk;
      if (!by || !found || task?.kind !== 'measure' || task.line !== rule) continue;
      const back = invert(rasterMap(by))!;
      const long = distance(apply(back, rule.from), apply(back, rule.to));
      const { step } = by.raster;
      desk.task = {
        ...task,
        crossed: {
          shares: found.edges.map((e) => e / long),
          between: found.between,
          width: found.width === null ? null : found.width * step,
        },
      };
    }
  } finally {
    busy = false;
  }
}

/** A drag measures from one thing to another; a click takes the line away. */
export function gripMeasure(desk: Desk, start: BedPointer): Grip {
  const at = (p: BedPointer): Point => {
    const snap = snapAt(desk, p.sheet);
    desk.taken = snap;
    return snap?.at ?? p.sheet;
  };
  const from = at(start);
  const before = desk.task as Measure;
  const show = (p: BedPointer): void => {
    const to = p.shift ? add(from, snapAngle(subtract(p.sheet, from), EIGHTH_TURN)) : at(p);
    const line = { from, to };
    desk.task = { kind: 'measure', line, crossed: null };
    desk.focus = to;
    void look(desk, line);
  };
  const end = (): void => {
    desk.taken = null;
    desk.focus = null;
  };
  return {
    drag: show,
    release: end,
    click() {
      desk.task = { kind: 'measure', line: null, crossed: null };
      end();
    },
    cancel() {
      desk.task = before;
      end();
    },
  };
}

/** Distance, angle, and the width of the picture's stroke along a measured line, in words. */
export function measureText(desk: Desk, { line, crossed: found }: Measure): string {
  if (!line) return '';
  const d = subtract(line.to, line.from);
  const k = desk.traced ? meanScale(desk.traced.placement) : null;
  const px = k ? ` · ${(Math.hypot(d.x, d.y) / k).toFixed(1)} px` : '';
  const stroke =
    found?.width && k
      ? ` · stroke ${formatLength(found.width * k, desk.art.sheet.unit)}, ${found.width.toFixed(1)} px`
      : '';
  return lengthAndAngle(desk, d) + px + stroke;
}
