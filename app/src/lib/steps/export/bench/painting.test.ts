import { FIRST_MACHINE, playFile, writeHpgl, type PenStroke } from '@mirrot/core';
import { describe, expect, it } from 'vitest';
import { onSheet } from '$lib/workers/on-sheet';
import { benchLines, paintBench, placeBetween } from './painting';

const line = (...points: readonly (readonly [number, number])[]): PenStroke => ({ pen: 1, closed: false, points: points.map(([x, y]) => ({ x, y })) }); // prettier-ignore
// A sheet pixel is a millimetre here.
const at = onSheet({ x0: 0, y0: 0, x1: 100, y1: 50 }, 96 / 25.4);
const text = writeHpgl([line([10, 10], [30, 10]), line([50, 10], [50, 30]), line([30, 10], [10, 10])]);
const VIEW = { scale: 2, tx: 5, ty: 7 };
const COLOURS = { ink: 'ink', travel: 'travel', doubled: 'doubled' };

/** What a canvas was told: a line for each stroke, with its colour and its points. */
function told(paint: (context: CanvasRenderingContext2D) => void): string[] {
  const out: string[] = [];
  let path = '';
  const context = {
    strokeStyle: '',
    lineWidth: 0,
    beginPath: () => (path = ''),
    moveTo: (x: number, y: number) => (path += `M${Math.round(x)},${Math.round(y)}`),
    lineTo: (x: number, y: number) => (path += `L${Math.round(x)},${Math.round(y)}`),
    setLineDash: () => {},
    stroke: () => path && out.push(`${context.strokeStyle} ${path}`),
  };
  paint(context as unknown as CanvasRenderingContext2D);
  return out;
}

describe('the bench', () => {
  const pen = playFile(text, FIRST_MACHINE);
  const lines = benchLines(pen, at);
  const all = [0, pen.motion.times.length - 1] as const;

  it('paints travel, lines, and what is drawn twice, where they lie on the sheet', () => {
    expect(told((context) => paintBench(context, lines, VIEW, all, COLOURS, true))).toEqual([
      'travel M5,107L25,87M65,87L105,87M105,47L65,87',
      'ink M25,87L65,87M105,87L105,47M65,87L25,87',
      'doubled M65,87L25,87',
    ]);
    expect(told((context) => paintBench(context, lines, VIEW, all, COLOURS, false))[0]).toMatch(/^ink/);
  });

  it('goes on from where it stopped, and comes to the same', () => {
    const whole = told((context) => paintBench(context, lines, VIEW, all, COLOURS, true));
    const parts = [0, 1, 2, 3, 4, 5, 6].slice(1).flatMap((to) => told((context) => paintBench(context, lines, VIEW, [to - 1, to], COLOURS, true))); // prettier-ignore
    const pieces = (list: readonly string[]): string[] => list.flatMap((one) => one.split(' ')[1]!.split('M').filter(Boolean).map((piece) => `${one.split(' ')[0]} ${piece}`)).sort(); // prettier-ignore
    expect(pieces(parts)).toEqual(pieces(whole));
  });

  it('shows a knife by what its edge leaves, once a cut is whole', () => {
    const knife = playFile(text, { ...FIRST_MACHINE, tool: 'knife', bladeOffset: 1 });
    const cuts = benchLines(knife, at);
    const inked = told((context) => paintBench(context, cuts, VIEW, all, COLOURS, false)).filter((one) => one.startsWith('ink')); // prettier-ignore
    expect(inked).toHaveLength(3);
    expect(told((context) => paintBench(context, cuts, VIEW, [0, 1], COLOURS, false)).filter((one) => one.startsWith('ink ML'))).toEqual([]); // prettier-ignore
  });

  it('knows where the machine is between two places', () => {
    const { times } = pen.motion;
    const half = (times[1]! + times[2]!) / 2;
    expect(placeBetween(lines, pen.motion, 1, half)).toEqual({ x: 20, y: 40 });
    expect(placeBetween(lines, pen.motion, 6, 99)).toEqual({ x: 10, y: 40 });
    expect(placeBetween(lines, pen.motion, 0, 0)).toEqual({ x: 0, y: 50 });
  });

  it('takes a file with nothing in it', () => {
    const none = playFile('IN;SP0;', FIRST_MACHINE);
    const empty = benchLines(none, at);
    expect(told((context) => paintBench(context, empty, VIEW, [0, 0], COLOURS, true))).toEqual([]);
    expect(placeBetween(empty, none.motion, 0, 5)).toEqual({ x: 0, y: 50 });
  });
});
