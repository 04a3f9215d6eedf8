import { describe, expect, it } from 'vitest';
import { cubicPoint, splitCubic } from '../geometry/cubic';
import { distance, dot, subtract, unit } from '../geometry/vector';
import { parsePathData } from '../path/data';
import { nearestOnPath } from '../path/path-measure';
import { pathCubics, segmentIsLine, type Path } from '../path/path';
import { transformPath } from '../path/path-map';
import { circlePath, squarePath } from '../testing';
import { clickAlong, pointsAlong } from './clicking';
import { EDGE_BLUR, edgeTiles, fieldTiles, type FieldTiles } from './field-tiles';
import { lineBlur } from './follow';
import { halved } from '../picture/halve';
import { chainRun, farthestFrom } from '../path/fit-chain';
import { runOfPoints } from '../path/fit-path';
import { halvedAbout, reach as ask, reachLevel, reachMemory, type ReachField } from './reach';
import { segmentToPlace } from './reach-offer';
import { enlarged, painted, photographed } from './testing';

/** Asked until all of it is told. */
const reach: typeof ask = (field, start, pointer, options, memory) => {
  for (;;) {
    const got = ask(field, start, pointer, options, memory);
    if (!memory.open) return got;
  }
};
const INK = [40, 70, 60] as const;
const PAPER = [235, 228, 210] as const;
const of = (path: Path, grain = 0, width = 240, height = 240): ReachField => {
  const fine = fieldTiles(painted(width, height, [{ path, rgb: INK }], PAPER, grain), 'edge', EDGE_BLUR);
  return { fine, coarse: fine, ratio: 1 };
};
const WHERE = { tolerance: 0.6, near: 8 };
const start = (x: number, y: number) => ({ at: { x, y }, leave: null, drawn: [] });
const LEAF = parsePathData('M60 190C30 120 70 50 180 40C200 120 150 190 60 190Z')[0]!;
const POT = parsePathData('M50 70L190 70L165 200C140 212 100 212 75 200Z')[0]!;
const STAR = parsePathData('M120 20L145 90L220 92L160 138L182 210L120 168L58 210L80 138L20 92L95 90Z')[0]!;

// Truth: outlines that the picture was painted from.
describe('an outline clicked round at its ticks', () => {
  it.each([
    ['a disc', circlePath(120, 120, 70)],
    ['a turned ellipse', transformPath(circlePath(0, 0, 1), [80, 20, -14, 35, 120, 120])],
    ['a leaf with two corners', LEAF],
    ['a pot of straight sides and a curved foot', POT],
    ['a square', squarePath(60, 60, 110)],
  ])('has no more anchors than %s itself, near to it', (_what, truth) => {
    for (const grain of [0, 16]) {
      const { path, whole, log } = clickAlong(of(truth, grain), truth, WHERE.tolerance, WHERE.near);
      expect(whole, log.join('\n')).toBe(true);
      expect(path.anchors.length, log.join('\n')).toBeLessThanOrEqual(truth.anchors.length);
      const off = pointsAlong(path).map((p) => nearestOnPath(truth, p)!.distance);
      expect(off.reduce((s, v) => s + v, 0) / off.length).toBeLessThan(0.45);
    }
  });

  it('finds the corners of a star to a third of a pixel, and its straight sides, grain or not', () => {
    for (const grain of [0, 16]) {
      const { path } = clickAlong(of(STAR, grain), STAR, WHERE.tolerance, WHERE.near);
      expect(path.anchors.length).toBe(10);
      for (const a of STAR.anchors)
        expect(Math.min(...path.anchors.map((b) => distance(a, b)))).toBeLessThan(0.33);
      for (let s = 0; s < 10; s++) expect(segmentIsLine(path, s)).toBe(true);
    }
  });
});

describe('the next segment', () => {
  const disc = circlePath(120, 120, 70);
  it('lies on the edge between the last anchor and the pointer, its figures true', () => {
    const got = reach(of(disc), start(190, 120), { x: 122, y: 194 }, WHERE, reachMemory())!;
    expect(Math.abs(distance(got.at, { x: 120, y: 120 }) - 70)).toBeLessThan(0.1);
    expect(distance(got.at, { x: 122, y: 194 })).toBeLessThan(8);
    expect(got.corner).toBe(false);
    expect(got.worst).toBeLessThan(0.3);
    expect(got.mean).toBeLessThan(got.worst);
    const off = pointsAlong({ id: 'p', closed: false, anchors: [{ ...got.segments[0]!.cubic[0], kind: 'corner', in: null, out: subtract(got.segments[0]!.cubic[1], got.segments[0]!.cubic[0]) }, { ...got.segments[0]!.cubic[3], kind: 'corner', in: subtract(got.segments[0]!.cubic[2], got.segments[0]!.cubic[3]), out: null }] }); // prettier-ignore
    for (const p of off) expect(Math.abs(distance(p, { x: 120, y: 120 }) - 70)).toBeLessThan(0.5);
    // The tick lies farther along, on the edge.
    expect(Math.abs(distance(got.farthest![3], { x: 120, y: 120 }) - 70)).toBeLessThan(0.2);
    expect(distance(got.farthest![3], { x: 190, y: 120 })).toBeGreaterThan(
      distance(got.at, { x: 190, y: 120 }),
    );
  });

  it('leaves as the last anchor does where that is smooth, and closes onto a given place and direction', () => {
    const leave = unit({ x: 0.02, y: 1 })!;
    const got = reach(of(disc), { ...start(190, 120), leave }, { x: 130, y: 190 }, WHERE, reachMemory())!;
    expect(dot(unit(subtract(got.segments[0]!.cubic[1], got.segments[0]!.cubic[0]))!, leave)).toBeGreaterThan(
      1 - 1e-9,
    );
    const to = { at: { x: 120, y: 190 }, arrive: { x: 1, y: 0 } };
    const closing = reach(of(disc), { ...start(190, 120), leave }, to.at, { ...WHERE, to }, reachMemory())!;
    expect(closing.at).toEqual(to.at);
    expect(
      dot(unit(subtract(closing.segments[0]!.cubic[2], closing.segments[0]!.cubic[3]))!, to.arrive),
    ).toBeGreaterThan(1 - 1e-9);
  });

  it('stays at a tick once shown, and says where the edge turns farther on', () => {
    const memory = reachMemory();
    const field = of(POT);
    const got = reach(field, start(50, 70), { x: 90, y: 71 }, { ...WHERE, hints: 3 }, memory)!;
    expect(distance(got.farthest![3], { x: 190, y: 70 })).toBeLessThan(0.3);
    expect(got.segments[0]!.straight).toBe(true);
    expect(distance(got.hints[0]!, { x: 165, y: 200 })).toBeLessThan(0.5);
    const there = reach(field, start(50, 70), { x: 187, y: 74 }, WHERE, memory)!;
    expect(there).toMatchObject({
      at: got.farthest![3],
      corner: true,
      segments: [{ straight: true }],
      farthest: null,
    });
  });

  it('is told in pieces: first what holds up to the pointer, then its tick, the same as when asked for at once', () => {
    const [field, memory] = [of(disc), reachMemory()];
    const told = [];
    do told.push(ask(field, start(190, 120), { x: 122, y: 194 }, WHERE, memory));
    while (memory.open);
    const [last, ...before] = told.toReversed();
    const first = before.findLast((t) => t !== null)!;
    expect(first).toMatchObject({ open: true, farthest: null, hints: [] });
    expect(first.worst).toBeLessThanOrEqual(WHERE.tolerance);
    expect(last).toMatchObject({ open: false, at: first.at, segments: first.segments });
    expect(last!.farthest).not.toBeNull();
    // What one segment cannot hold is not shown before its tick is known.
    const far = ask(field, start(190, 120), { x: 60, y: 84 }, WHERE, memory);
    expect(memory.open ? far : null).toBeNull();
  });

  it('forgets its tick when the last anchor turns from smooth to corner', () => {
    const [field, memory] = [of(disc), reachMemory()];
    const to = { x: 122, y: 194 };
    // A direction that no single segment along the disc could leave in.
    const held = reach(field, { ...start(190, 120), leave: unit({ x: 0.5, y: 1 }) }, to, WHERE, memory);
    const free = reach(field, start(190, 120), to, WHERE, memory);
    expect(free).toEqual(reach(field, start(190, 120), to, WHERE, reachMemory()));
    expect(free).not.toEqual(held);
  });

  it('goes on along an edge that the pointer follows, where a way round would be shorter', () => {
    // Half a disc: its straight side is the cheaper way to most of its arc.
    const half = parsePathData('M40 280A240 240 0 0 1 520 280Z')[0]!;
    const raster = painted(560, 320, [{ path: half, rgb: INK }], PAPER, 6);
    const [fine, coarse] = [raster, halved(raster)].map((r) => fieldTiles(r, 'edge', EDGE_BLUR)) as [FieldTiles, FieldTiles]; // prettier-ignore
    const field: ReachField = { fine, coarse, ratio: 2 };
    const memory = reachMemory();
    const line = pathCubics(half).slice(0, -1).flatMap((c) => Array.from({ length: 24 }, (_, k) => cubicPoint(c, k / 24))); // prettier-ignore
    let ticked = 0;
    for (const p of line.slice(2)) {
      const got = reach(field, start(40, 280), p, { ...WHERE, tolerance: 8 }, memory)!;
      expect(distance(got.at, p)).toBeLessThan(8);
      for (const q of pointsAlong({ id: 'p', closed: false, anchors: [{ ...got.segments[0]!.cubic[0], kind: 'corner', in: null, out: subtract(got.segments[0]!.cubic[1], got.segments[0]!.cubic[0]) }, { ...got.segments[0]!.cubic[3], kind: 'corner', in: subtract(got.segments[0]!.cubic[2], got.segments[0]!.cubic[3]), out: null }] }).slice(12)) expect(q.y).toBeLessThan(279); // prettier-ignore
      if (got.farthest) ticked++;
    }
    expect(ticked).toBeGreaterThan(0);
  });

  it('offers a chain of the fewest beyond the tick, its anchors standing still as the pointer goes on', () => {
    // An ellipse: four extremes, where its own anchors are.
    const oval = parsePathData('M20 150A180 120 0 0 1 380 150A180 120 0 0 1 20 150Z')[0]!;
    const fine = fieldTiles(painted(400, 300, [{ path: oval, rgb: INK }], PAPER), 'edge', EDGE_BLUR);
    const field: ReachField = { fine, coarse: fine, ratio: 1 };
    const on = (a: number) => ({ x: 200 - 180 * Math.cos(a), y: 150 - 120 * Math.sin(a) });
    const memory = reachMemory();
    const wish = { ...WHERE, tolerance: 0.25, most: 8 };
    let most = 0;
    const firsts = new Set<string>();
    for (let a = 0.4; a < 2.9; a += 0.05) {
      const got = reach(field, start(20, 150), on(a), wish, memory)!;
      expect([got.holds, distance(got.at, on(a)) <= WHERE.near + 1]).toEqual([true, true]);
      most = Math.max(most, got.segments.length);
      const [first] = got.segments;
      if (got.segments.length > 1) firsts.add(`${got.segments.length} ${first!.cubic[3].x.toFixed(3)}`);
      for (const { cubic } of got.segments)
        for (let t = 0; t <= 1; t += 0.1)
          expect(nearestOnPath(oval, cubicPoint(cubic, t))!.distance).toBeLessThan(0.6);
    }
    expect(most).toBeGreaterThan(1);
    // It moves only where the count does, or the edge is known farther.
    expect(firsts.size).toBeLessThan(3 * most);
    // No more than are allowed: there it ends before the pointer.
    const short = reach(field, start(20, 150), on(2.8), { ...wish, tolerance: 0.03, most: 2 }, memory)!;
    expect([short.segments.length, distance(short.at, on(2.8)) > 20]).toEqual([2, true]);
  });

  it('goes as far as the pointer does, on the picture made smaller for it', () => {
    const bar = parsePathData('M40 60C300 20 700 20 960 60L960 110L40 110Z')[0]!;
    const raster = painted(1000, 130, [{ path: bar, rgb: INK }], PAPER);
    const fine = fieldTiles(raster, 'edge', EDGE_BLUR);
    const to = { x: 840, y: 46 };
    expect(reach({ fine, coarse: fine, ratio: 1 }, start(40, 60), to, WHERE, reachMemory())).toBeNull();
    const level = reachLevel(1, 800);
    expect(level).toBe(2);
    const coarse = fieldTiles(halved(halved(raster)), 'edge', EDGE_BLUR);
    const got = reach({ fine, coarse, ratio: 2 ** level }, start(40, 60), to, WHERE, reachMemory())!;
    expect(got.worst).toBeLessThan(WHERE.tolerance);
    expect(nearestOnPath(bar, got.at)!.distance).toBeLessThan(0.2);
    // Near by it is as large as it is shown.
    expect([reachLevel(1, 100), reachLevel(0.1, 379), reachLevel(3, 10), reachLevel(1, 0), reachLevel(99, 1e6)]).toEqual([0, 0, 2, 0, 4]); // prettier-ignore
  });

  it('offers no way home that leads round something else, where the edge ends at it', () => {
    // A bud on a stem in one colour: between the two places where their outlines meet there is no edge.
    const stem = parsePathData('M100 20L140 20L140 220L100 220Z')[0]!;
    const areas = [stem, circlePath(160, 120, 30)].map((path) => ({ path, rgb: INK }));
    const fine = fieldTiles(painted(240, 240, areas, PAPER), 'edge', EDGE_BLUR);
    const field: ReachField = { fine, coarse: fine, ratio: 1 };
    const options = { ...WHERE, most: 8 };
    const [first, last] = [
      { x: 140, y: 97.6 },
      { x: 140, y: 142.4 },
    ];
    const around = reach(
      field,
      { at: first, leave: null, drawn: [] },
      { x: 190, y: 120 },
      options,
      reachMemory(),
    )!;
    const on = reach(field, { at: around.at, leave: null, drawn: around.segments.map((s) => s.cubic) }, last, options, reachMemory())!; // prettier-ignore
    const drawn = [...around.segments, ...on.segments].map((s) => s.cubic);
    const to = { at: first, arrive: null };
    expect(
      reach(field, { at: last, leave: null, drawn }, first, { ...options, to }, reachMemory()),
    ).toBeNull();
    // Where an edge does lead home it is offered, though it is longer than the straight way.
    const home = reach(field, { at: around.at, leave: null, drawn: [] }, last, { ...options, to: { at: last, arrive: null } }, reachMemory()); // prettier-ignore
    expect(home?.segments.length).toBeGreaterThan(0);
  });

  it('does not go back along what is drawn', () => {
    const drawn = [...pathCubics(disc).slice(0, 1), splitCubic(pathCubics(disc)[1]!, 0.4)[0]];
    const at = drawn[1]![3];
    // The shorter way to the first place is the way it came.
    const back = cubicPoint(drawn[0]!, 0.2);
    const got = reach(of(disc), { at, leave: null, drawn }, back, WHERE, reachMemory());
    expect(got === null || distance(got.segments[0]!.cubic[1], at) > 0).toBe(true);
    if (got) expect(dot(subtract(got.segments[0]!.cubic[1], at), subtract(drawn[1]![2], at))).toBeLessThan(0);
  });

  it('begins a path on the edge, at its corner where one is near', () => {
    const at = reach(of(POT), null, { x: 54, y: 65 }, WHERE, reachMemory())!;
    expect(at).toMatchObject({ corner: true, segments: [] });
    expect(distance(at.at, { x: 50, y: 70 })).toBeLessThan(0.5);
    const side = reach(of(POT), null, { x: 120, y: 66 }, { ...WHERE, hints: 2 }, reachMemory())!;
    expect(side.corner).toBe(false);
    expect(Math.abs(side.at.y - 70)).toBeLessThan(0.1);
    for (const corner of [{ x: 50, y: 70 }, { x: 190, y: 70 }]) expect(Math.min(...side.hints.map((h) => distance(h, corner)))).toBeLessThan(0.5); // prettier-ignore
  });
});

describe('reach where there is little to follow', () => {
  const nothing = painted(120, 120, [], [200, 190, 180], 0);
  const fine = fieldTiles(nothing, 'edge', EDGE_BLUR);
  const flat: ReachField = { fine, coarse: fine, ratio: 1 };
  it('begins on a short bent stroke, wherever the pointer is about it, though its corner takes most of it', () => {
    const bent = ['M69 84L62 65L57 67L64 86Z', 'M59 63L34 71L36 77L60 69Z'].map((d) => ({ path: parsePathData(d)[0]!, rgb: INK })); // prettier-ignore
    const fine = fieldTiles(painted(120, 120, bent, PAPER, 24), 'line', lineBlur(6));
    let begun = 0;
    for (let y = 50; y < 100; y += 3)
      for (let x = 24; x < 84; x += 3) {
        const got = reach({ fine, coarse: fine, ratio: 1 }, null, { x, y }, WHERE, reachMemory());
        if (!got) continue;
        begun++;
        const off = Math.min(...[[66.5, 85, 59.5, 66], [59.5, 66, 35, 74]].map(([ax, ay, bx, by]) => nearestOnPath(parsePathData(`M${ax} ${ay}L${bx} ${by}`)[0]!, got.at)!.distance)); // prettier-ignore
        expect(off).toBeLessThan(10);
      }
    expect(begun).toBeGreaterThan(20);
  });

  it('offers nothing on flat ground, off the picture, and far from any edge', () => {
    expect(reach(flat, null, { x: 60, y: 60 }, WHERE, reachMemory())).toBeNull();
    expect(reach(flat, start(20, 20), { x: 60, y: 60 }, WHERE, reachMemory())).toBeNull();
    expect(reach(flat, start(20, 20), { x: -500, y: 9 }, WHERE, reachMemory())).toBeNull();
    expect(
      reach(of(circlePath(120, 120, 70)), start(190, 120), { x: 120, y: 120 }, WHERE, reachMemory()),
    ).toBeNull();
  });

  it('takes only an edge that the pointer is at, however large pixels are on screen', () => {
    const field = of(circlePath(120, 120, 70));
    const close = { tolerance: 0.6, near: 0.5 };
    expect(reach(field, null, { x: 190.2, y: 120 }, close, reachMemory())).not.toBeNull();
    expect(reach(field, null, { x: 191.2, y: 120 }, close, reachMemory())).toBeNull();
    const memory = reachMemory();
    expect(reach(field, start(190, 120), { x: 120, y: 190.3 }, close, memory)).not.toBeNull();
    expect(reach(field, start(190, 120), { x: 120, y: 191.4 }, close, memory)).toBeNull();
  });

  it('keeps to one of two edges three pixels apart', () => {
    const bar = squarePath(60, 60, 110);
    const thin = parsePathData('M60 118L180 118L180 121L60 121Z')[0]!;
    const got = reach(of(thin), start(70, 118), { x: 150, y: 117 }, WHERE, reachMemory())!;
    for (const p of got.segments[0]!.cubic) expect(Math.abs(p.y - 119.5)).toBeLessThan(3.5);
    expect(reach(of(bar), start(60, 60), { x: 60, y: 61 }, WHERE, reachMemory())).toBeNull();
  });

  it('gives finite numbers in noise only, or nothing', () => {
    const noise = fieldTiles(painted(160, 160, [], [128, 128, 128], 120), 'edge', EDGE_BLUR);
    const memory = reachMemory();
    for (let k = 0; k < 12; k++) {
      const got = reach({ fine: noise, coarse: noise, ratio: 1 }, start(30, 30), { x: 40 + 9 * k, y: 130 - 8 * k }, { ...WHERE, hints: 2 }, memory); // prettier-ignore
      for (const p of got?.segments[0]?.cubic ?? [])
        expect(Number.isFinite(p.x) && Number.isFinite(p.y)).toBe(true);
    }
    expect(() => reach(flat, null, { x: 1, y: 1 }, { tolerance: 0, near: 8 }, memory)).toThrow('tolerance');
  });
});

// Truth: outlines that a lens photographed.
describe('acute tips and grain', () => {
  const DROP = parsePathData(
    'M120 24C128 80 200 110 200 160C200 200 164 226 120 226C76 226 40 200 40 160C40 110 112 80 120 24Z',
  )[0]!;
  const taken = (path: Path, blur: number, grain: number): ReachField => {
    const fine = edgeTiles(photographed(240, 250, [{ path, rgb: INK }], PAPER, { blur, grain }));
    return { fine, coarse: fine, ratio: 1 };
  };
  it.each([0.7, 1.5])(
    'finds the tip of a drop, whose sides meet at 16°, at a blur of %d, and goes round it',
    (blur) => {
      const field = taken(DROP, blur, 2);
      const began = reach(field, null, { x: 121, y: 30 }, WHERE, reachMemory())!;
      expect(began.corner).toBe(true);
      expect(distance(began.at, DROP.anchors[0]!)).toBeLessThan(8);
      const { path, whole, log } = clickAlong(field, DROP, WHERE.tolerance, WHERE.near, { light: 'true' });
      expect(whole, log.join('\n')).toBe(true);
      expect(path.anchors.length, log.join('\n')).toBeLessThanOrEqual(DROP.anchors.length);
    },
  );

  it('needs few anchors on a picture five times enlarged, its steps smoothed, and gives all of it in the picture’s own pixels', () => {
    const DISC = circlePath(140, 140, 104);
    const small = painted(56, 56, [{ path: transformPath(DISC, [0.2, 0, 0, 0.2, 0, 0]), rgb: INK }], PAPER);
    const large = enlarged(small, 5);
    const [fine, half] = [edgeTiles(large), edgeTiles(halved(large))];
    const plain = { fine, coarse: fine, ratio: 1 };
    const field = { ...plain, halved: () => ({ fine: half, coarse: half, ratio: 1 }) };
    const [one, other] = [plain, field].map((f) => clickAlong(f, DISC, WHERE.tolerance, WHERE.near, {}));
    expect(other!.whole, other!.log.join('\n')).toBe(true);
    expect(other!.path.anchors.length).toBeLessThanOrEqual(1.5 * DISC.anchors.length);
    expect(other!.path.anchors.length).toBeLessThan(one!.path.anchors.length);
    const off = pointsAlong(other!.path).map((p) => nearestOnPath(DISC, p)!.distance);
    expect(off.reduce((s, v) => s + v, 0) / off.length).toBeLessThan(0.6);
  });

  it('looks for an edge too faint for the picture’s grain in the picture halved', () => {
    // ΔE2000 3 in lightness alone, by a soft lens.
    const raster = photographed(240, 250, [{ path: LEAF, rgb: [172, 160, 140] }], [182, 170, 150], { blur: 2, grain: 1.5, colourGrain: 0.7 }); // prettier-ignore
    const [fine, half] = [edgeTiles(raster), edgeTiles(halved(raster))];
    const plain = { fine, coarse: fine, ratio: 1 };
    const field = { ...plain, halved: () => ({ fine: half, coarse: half, ratio: 1 }) };
    expect(halvedAbout(field, { x: 100, y: 100 })?.fine).toBe(half);
    const { path, whole, log } = clickAlong(field, LEAF, WHERE.tolerance, WHERE.near, { light: 'true', strays: 2.5 }); // prettier-ignore
    expect(whole, log.join('\n')).toBe(true);
    expect(path.anchors.length, log.join('\n')).toBeLessThanOrEqual(LEAF.anchors.length + 1);
    const off = pointsAlong(path).map((p) => nearestOnPath(LEAF, p)!.distance);
    expect(off.reduce((s, v) => s + v, 0) / off.length).toBeLessThan(0.45);
    // A clear, sharp one is looked for in the picture itself.
    const sharp = edgeTiles(painted(240, 250, [{ path: LEAF, rgb: INK }], PAPER, 2));
    expect(halvedAbout({ ...field, fine: sharp }, { x: 100, y: 100 })).toBeNull();
  });

  it.each([
    ['grain', 0.7, 10],
    ['a soft lens', 2.5, 1],
    ['both', 1.5, 6],
  ])('needs no more anchors than a leaf has under %s', (_what, blur, grain) => {
    const { path, whole, log } = clickAlong(taken(LEAF, blur, grain), LEAF, WHERE.tolerance, WHERE.near, { light: 'true' }); // prettier-ignore
    expect(whole, log.join('\n')).toBe(true);
    expect(path.anchors.length, log.join('\n')).toBeLessThanOrEqual(LEAF.anchors.length);
    const off = pointsAlong(path).map((p) => nearestOnPath(LEAF, p)!.distance);
    expect(off.reduce((s, v) => s + v, 0) / off.length).toBeLessThan(0.35);
  });
});

it('tells no tick where not even the first step of an edge is held', () => {
  // The anchor leaves the other way, and the edge is all jags: whatever goes on from there winds.
  const run = runOfPoints(Array.from({ length: 60 }, (_, i) => ({ x: i, y: i % 2 })));
  const along = { tolerance: 0.6, leave: { x: -1, y: 0 }, about: 7, most: 8, level: { x: 1, y: 0 } };
  const edge = { line: chainRun(run), track: [], ended: false, wanted: 59, spacing: 1, soft: 1, grain: 0, end: { x: 40, y: 0 }, index: 40 }; // prettier-ignore
  expect(farthestFrom(edge.line, 0, along).holds).toBe(false);
  expect(segmentToPlace(edge, 40, { x: 40, y: 1 }, 8, along, 0)!.farthest).toBeNull();
});
