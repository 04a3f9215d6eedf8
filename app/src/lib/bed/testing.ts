import {
  addNode,
  addPicture,
  changeArt,
  corner,
  emptyArt,
  placedPicture,
  type Anchor,
  type Art,
  type Path,
  type Patch,
  type Point,
  type Raster,
  type Shape,
} from '@mirrot/core';
import { Desk } from '$lib/desk/desk.svelte';
import { createHabits } from '$lib/desk/habits.svelte';
import type { Step } from '$lib/desk/steps';
import { toBed } from '$lib/desk/view';
import { createPressMachine, type BedPointer, type PressMachine } from './behaviour';
import { pressOn } from './press';

// Shared by tests only: a desk with a pointer, and no browser.

export const smooth = (x: number, y: number, handle: Point): Anchor => ({
  x,
  y,
  kind: 'smooth',
  in: { x: -handle.x, y: -handle.y },
  out: handle,
});

export const shapeWith = (id: string, paths: readonly Path[], values: Partial<Shape> = {}): Shape => ({
  id,
  type: 'shape',
  name: id,
  shown: true,
  locked: false,
  opacity: 1,
  fill: null,
  stroke: null,
  paths,
  ...values,
});

export const square = (id: string, x: number, y: number, size: number): Path => ({
  id,
  closed: true,
  anchors: [corner(x, y), corner(x + size, y), corner(x + size, y + size), corner(x, y + size)],
});

export interface Bench {
  readonly desk: Desk;
  readonly machine: PressMachine;
  readonly sent: (readonly Patch[])[];
  press(p: Point, keys?: Keys): void;
  move(p: Point, keys?: Keys): void;
  lift(p: Point, keys?: Keys): void;
  click(p: Point, keys?: Keys): void;
  doubleClick(p: Point): void;
  drag(from: Point, to: Point, keys?: Keys): void;
  wait(milliseconds: number): void;
  readonly shapes: Shape[];
}
interface Keys {
  readonly shift?: boolean;
  readonly alt?: boolean;
  readonly type?: BedPointer['type'];
}

/** Frozen through and through: whoever changes a document in place, instead of making the next one, fails. */
function frozen<T>(value: T): T {
  if (typeof value === 'object' && value !== null) Object.values(Object.freeze(value)).forEach(frozen);
  return value;
}

/** A desk with these shapes, opened at a step, seen at a scale. Points are given in sheet pixels. */
export function benchWith(shapes: readonly Shape[], step: Step = 'block-in', scale = 1): Bench {
  let art: Art = emptyArt({ width: 400, height: 300, unit: 'px' }, 'layer');
  for (const s of shapes) art = changeArt(art, addNode('layer', s)).art;
  const sent: (readonly Patch[])[] = [];
  let time = 0;
  const desk = new Desk(
    frozen(art),
    { push: ({ patches }) => sent.push(patches) },
    createHabits(),
    () => time,
  );
  // Where a press lands is what these tests ask, until they ask what attracts.
  desk.habits.set({ snapOn: false });
  desk.step = step;
  desk.looking.view = { scale, tx: 20, ty: 10 };
  const machine = createPressMachine(pressOn(desk), (busy) => (desk.pointing.pressing = busy));
  const pointer = (
    p: Point,
    { shift = false, alt = false, type = 'mouse' }: Keys,
  ): Omit<BedPointer, 'again'> => {
    time += 10;
    return { sheet: p, screen: toBed(desk.looking.view, p), shift, alt, type, time };
  };
  const bench: Bench = {
    desk,
    machine,
    sent,
    press: (p, keys = {}) => machine.down(pointer(p, keys)),
    move: (p, keys = {}) => machine.move(pointer(p, keys)),
    lift: (p, keys = {}) => machine.up(pointer(p, keys)),
    click(p, keys = {}) {
      bench.wait(1000);
      bench.press(p, keys);
      bench.lift(p, keys);
    },
    doubleClick(p) {
      bench.click(p);
      bench.press(p);
      bench.lift(p);
    },
    drag(from, to, keys = {}) {
      bench.wait(1000);
      bench.press(from, keys);
      bench.move({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }, keys);
      bench.move(to, keys);
      bench.lift(to, keys);
    },
    wait: (milliseconds) => void (time += milliseconds),
    get shapes() {
      return desk.art.layers.flatMap((l) => l.children as Shape[]);
    },
  };
  return bench;
}

/** Lays a locked picture on the desk's sheet. */
export const withPicture = ({ desk }: Bench, width = 200, height = 100): void =>
  void desk.change(
    'Add a picture',
    addPicture(
      placedPicture({
        id: 'pic',
        source: 'src',
        name: 'Photo',
        width,
        height,
        placement: [1, 0, 0, 1, 0, 0],
      }),
    ),
  );

/** A picture of 200 × 200 px: a dark square from 60 to 140 on light ground. */
export const darkSquare = (): Raster => {
  const [width, height] = [200, 200];
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  for (let y = 60; y < 140; y++)
    for (let x = 60; x < 140; x++) data.fill(50, (y * width + x) * 4, (y * width + x) * 4 + 3);
  return { width, height, data };
};
