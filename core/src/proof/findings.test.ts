import { describe, expect, it } from 'vitest';
import { changeArt } from '../art/change';
import { addChip, addNode, addPicture, setSheet, together } from '../art/edits';
import { emptyArt, placedPicture } from '../art/blank';
import { plainStroke } from '../art/paint';
import type { Art, PlacedPicture, Shape } from '../art/schema';
import { frozen, shapeOf } from '../art/testing';
import { findShape, shapesOf } from '../art/tree';
import { plainForm } from '../path/form';
import { formPath } from '../path/form-path';
import type { Path } from '../path/path';
import { pathArea } from '../path/path-measure';
import { transformPath } from '../path/path-map';
import { anchor, circlePath, pathOf, seeded, squarePath } from '../testing';
import {
  FINDING_KINDS,
  TOLERANCES,
  type Finding,
  type FindingKind,
  type MeasuredPath,
  type Tolerances,
} from './finding';
import { findings, fixAll, fixFor } from './findings';

const T = TOLERANCES.screen;
const LEAF = { hex: '#2f6b4f' };
const drawing = (...shapes: Shape[]): Art =>
  frozen(changeArt(emptyArt({ width: 1000, height: 1000, unit: 'px' }, 'layer'), together(...shapes.map((s) => addNode('layer', s)))).art); // prettier-ignore
const filled = (id: string, ...paths: Path[]): Shape => shapeOf(id, { fill: LEAF, paths });
const line = (id: string, path: Path, width = 4): Shape => shapeOf(id, { fill: null, stroke: plainStroke({ hex: '#22252b' }, width), paths: [path] }); // prettier-ignore
const kinds = (art: Art): FindingKind[] => findings(art, T).map(({ kind }) => kind);

/** Shapes with nothing wrong: round, cornered, a line, a hole. */
const CLEAN: readonly Shape[] = [
  filled('disc', circlePath(100, 900, 60, 'disc-p')),
  filled('ring', circlePath(300, 900, 60, 'ring-o'), circlePath(300, 900, 30, 'ring-i')),
  filled('box', squarePath(420, 850, 90, 'box-p')),
  filled(
    'leaf',
    pathOf([anchor(560, 950, null, [20, -70]), anchor(680, 860, [-70, 10], null)], true, 'leaf-p'),
  ),
  line('stem', pathOf([anchor(760, 960, null, [10, -40], 'smooth'), anchor(820, 860, [-30, 30], null, 'smooth')], false, 'stem-p')), // prettier-ignore
];
const clean = drawing(...CLEAN);

/** A picture of 40 by 40 pixels. */
const seenAt = (placement: PlacedPicture['placement']): PlacedPicture => placedPicture({ id: 'seen', source: 'seen', name: 'seen', width: 40, height: 40, placement }); // prettier-ignore

/** A fault planted somewhere: the shapes with it, and how often it is there. */
type Plant = (x: number, y: number, size: number, random: () => number) => { readonly shapes: readonly Shape[]; readonly chips?: readonly string[]; readonly more?: (art: Art) => Art; readonly measured?: readonly MeasuredPath[]; readonly by?: Tolerances }; // prettier-ignore
const at = (path: Path, x: number, y: number): Path => transformPath(path, [1, 0, 0, 1, x, y]);

const PLANTS: Readonly<Record<FindingKind, readonly Plant[]>> = {
  'open-fill': [
    (x, y, s) => ({ shapes: [filled('f', at(pathOf([anchor(0, 0), anchor(s, 0), anchor(s, s)], false, 'p'), x, y))] }), // prettier-ignore
    (x, y, s) => ({ shapes: [filled('f', at(pathOf([anchor(0, 0), anchor(s, 0), anchor(s, s), anchor(0.3, 0.4)], false, 'p'), x, y))] }), // prettier-ignore
  ],
  'near-ends': [
    (x, y, s) => ({ shapes: [line('a', at(pathOf([anchor(0, 0), anchor(s, 0.3 * s)], false, 'a'), x, y)), line('b', at(pathOf([anchor(s + 0.5, 0.3 * s + 0.3), anchor(s * 0.8, s)], false, 'b'), x, y))] }), // prettier-ignore
    (x, y, s) => ({ shapes: [line('a', at(pathOf([anchor(0, 0), anchor(s, 0.3 * s), anchor(0.8 * s, s), anchor(0.6, 0.2)], false, 'a'), x, y))] }), // prettier-ignore
  ],
  'pokes-out': [
    (x, y, s) => ({ shapes: [line('t', at(pathOf([anchor(0, 0), anchor(s, 0.4 * s)], false, 't'), x, y)), line('a', at(pathOf([anchor(0.8 * s, -0.4 * s), anchor(0.5 * s - 2.4, 0.2 * s + 4.8)], false, 'a'), x, y))] }), // prettier-ignore
    (x, y, s) => {
      const roof = line('r', at(pathOf([anchor(0.3 * s, -0.9 * s), anchor(0.5 * s, 0.2 * s), anchor(0.7 * s, -0.8 * s)], false, 'r'), x, y)); // prettier-ignore
      return { shapes: [line('t', at(pathOf([anchor(0, 0), anchor(s, 0.4 * s)], false, 't'), x, y)), { ...roof, stroke: { ...roof.stroke!, joins: 'miter', miterLimit: 20 } }] }; // prettier-ignore
    },
  ],
  gap: [
    // Two boxes side by side; two with a round border; a disc in its hole.
    (x, y, s) => ({ shapes: [filled('low', at(pathOf([anchor(0, 0), anchor(s, 0), anchor(s, s), anchor(0, s)], true, 'low'), x, y)), filled('high', at(pathOf([anchor(s + 0.5, 0), anchor(2 * s, 0), anchor(2 * s, s), anchor(s + 0.5, s)], true, 'high'), x, y))] }), // prettier-ignore
    (x, y, s) => ({ shapes: [filled('low', at(pathOf([anchor(0, 0), anchor(s, 0, null, [0.2 * s, 0.3 * s]), anchor(s, s, [0.2 * s, -0.3 * s], null), anchor(0, s)], true, 'low'), x, y)), filled('high', at(pathOf([anchor(s + 0.6, 0), anchor(2 * s, 0), anchor(2 * s, s), anchor(s + 0.6, s, null, [0.2 * s, -0.3 * s])].map((a, i) => (i === 0 ? { ...a, in: { x: 0.2 * s, y: 0.3 * s } } : a)), true, 'high'), x, y))] }), // prettier-ignore
    (x, y, s) => ({ shapes: [filled('low', circlePath(x, y, s * 0.5 - 0.5, 'low')), filled('high', circlePath(x, y, s, 'high-o'), circlePath(x, y, s * 0.5, 'high'))] }), // prettier-ignore
  ],
  kink: [
    (x, y, s, random) => {
      const off = ((1 + 4 * random()) * Math.PI) / 180;
      const path = pathOf([anchor(0, 0, null, [0.2 * s, -0.3 * s]), anchor(s, 0, [-0.3 * s, 0], [0.3 * s * Math.cos(off), 0.3 * s * Math.sin(off)]), anchor(2 * s, 0.4 * s, [-0.1 * s, -0.3 * s], null)], false, 'k'); // prettier-ignore
      return { shapes: [line('k', at(path, x, y))] };
    },
  ],
  'long-handle': [
    (x, y, s) => ({ shapes: [line('h', at(pathOf([anchor(0, 0, null, [1.6 * s, -1.2 * s]), anchor(s, 0, [-0.3 * s, -0.3 * s], null)], false, 'h'), x, y))] }), // prettier-ignore
  ],
  'crossed-handles': [
    (x, y, s) => ({ shapes: [line('h', at(pathOf([anchor(0, 0, null, [0.7 * s, -0.8 * s]), anchor(s, 0, [-0.7 * s, -0.8 * s], null)], false, 'h'), x, y))] }), // prettier-ignore
  ],
  'missing-anchor': [
    (x, y, s) => ({ shapes: [line('m', at(pathOf([anchor(0, 0, null, [0.5 * s, -0.5 * s]), anchor(s, 0, [-0.5 * s, 0.5 * s], null)], false, 'm'), x, y))] }), // prettier-ignore
  ],
  'spare-anchor': [
    (x, y, s) => ({ shapes: [line('s', at(pathOf([anchor(0, 0), anchor(0.4 * s, 0.2 * s), anchor(s, 0.5 * s)], false, 's'), x, y))] }), // prettier-ignore
  ],
  'self-crossing': [
    (x, y, s) => ({ shapes: [filled('c', at(pathOf([anchor(0, 0), anchor(s, s * 0.9), anchor(s, 0), anchor(0, s)], true, 'c'), x, y))] }), // prettier-ignore
  ],
  doubled: [
    (x, y, s) => ({ shapes: [line('a', at(pathOf([anchor(0, 0), anchor(s, s * 0.4)], false, 'a'), x, y)), line('b', at(pathOf([anchor(s, s * 0.4 + 0.8), anchor(0, 0.8)], false, 'b'), x, y))] }), // prettier-ignore
  ],
  tiny: [(x, y, _, random) => ({ shapes: [filled('t', squarePath(x, y, 0.2 + 0.6 * random(), 't'))] })],
  crowded: [
    // A line that trembles by less than a machine can follow.
    (x, y, s) => ({ shapes: [line('z', at(pathOf(Array.from({ length: 200 }, (_, i) => anchor((i * s) / 100, 0.4 * s * Math.sin((Math.PI * i) / 200) + (i % 2 ? 0.3 : -0.3))), false, 'z'), x, y))], by: TOLERANCES.cutter }), // prettier-ignore
  ],
  sliver: [
    (x, y, s) => ({ shapes: [filled('s', at(pathOf([anchor(0, 0, null, [0.3 * s, -0.2 * s]), anchor(s, 0, [-0.3 * s, -0.2 * s], [-0.3 * s, -0.2 * s + 0.6]), anchor(0, 0.01, [0.3 * s, -0.2 * s + 0.6], null)], true, 's'), x, y))] }), // prettier-ignore
  ],
  'ground-patch': [
    (x, y, s) => ({ shapes: [filled('low', circlePath(x, y, s, 'low')), shapeOf('high', { fill: { hex: '#ffffff' }, paths: [circlePath(x, y, s / 3, 'high')] })] }), // prettier-ignore
    (x, y, s) => ({ shapes: [filled('low', circlePath(x, y, s, 'low')), shapeOf('high', { fill: { hex: '#fbf7ee' }, paths: [squarePath(x, y, s / 3, 'high')] })], more: (art) => changeArt(art, setSheet({ ...art.sheet, ground: '#fbf7ee' })).art }), // prettier-ignore
  ],
  hidden: [
    (x, y, s) => ({ shapes: [filled('low', circlePath(x, y, s * 0.3, 'low')), filled('high', circlePath(x + 2, y, s * 0.5, 'high'))] }), // prettier-ignore
    (x, y, s) => ({ shapes: [line('low', pathOf([anchor(x, y), anchor(x + s * 0.2, y + 0.1 * s)], false, 'low')), filled('high', circlePath(x, y, s * 0.5, 'high'))] }), // prettier-ignore
  ],
  'off-sheet': [(_, y, s) => ({ shapes: [filled('o', squarePath(1000 + s, y, s, 'o'))] })],
  'near-colours': [(x, y, s) => ({ shapes: [shapeOf('n', { fill: { chip: 'one' }, paths: [squarePath(x, y, s, 'n')] })], chips: ['#d4561c', '#d4571d'] })], // prettier-ignore
  'off-palette': [(x, y, s) => ({ shapes: [shapeOf('n', { fill: { hex: '#d4561c' }, paths: [squarePath(x, y, s, 'n')] })], chips: ['#d4561c'] })], // prettier-ignore
  'near-weights': [(x, y, s) => ({ shapes: [line('w', at(pathOf([anchor(0, 0), anchor(s, s * 0.4)], false, 'w'), x, y), 3.8)] })], // prettier-ignore
  'near-level': [
    (x, y, s) => ({ shapes: [filled('l', at(pathOf([anchor(0, 0), anchor(s, s * 0.012), anchor(s * 0.8, s), anchor(0, s * 0.7)], true, 'l'), x, y))] }), // prettier-ignore
    (x, y, s) => ({ shapes: [line('l', at(pathOf([anchor(0, 0), anchor(s * 0.015, s)], false, 'l'), x, y))] }), // prettier-ignore
  ],
  drifted: [
    (x, y, s) => ({ shapes: [line('d', at(pathOf([anchor(0, 0), anchor(s, 0.4 * s)], false, 'd'), x, y))], measured: [{ shape: 'd', path: 'd', places: Array.from({ length: 40 }, (_, i) => ({ at: { x: x + i, y: y + 0.4 * i }, drift: -1 - 3 * Math.sin((Math.PI * i) / 39), weight: 1, along: i, segment: 0 })) }] }), // prettier-ignore
  ],
  uncovered: [
    (x, y, s) => ({ shapes: [filled('f', squarePath(x - s, y - s, 4 * s, 'f'), squarePath(x, y, s / 2, 'hole'))], more: (art) => changeArt(art, addPicture(seenAt([s / 10, 0, 0, s / 10, x - s, y - s]))).art }), // prettier-ignore
  ],
  'picture-shown': [
    (x, y, s) => ({ shapes: [], more: (art) => changeArt(art, together(addPicture(seenAt([s / 40, 0, 0, s / 40, x, y])), addNode('layer', { type: 'picture', id: 'node', name: 'seen', shown: true, locked: false, opacity: 1, picture: 'seen' }))).art }), // prettier-ignore
  ],
};
const NAMES = ['one', 'two', 'three'];
const planted = ({ shapes, chips = [], more = (art) => art }: ReturnType<Plant>): Art => {
  // With a palette, what has no chip of it is told: the clean ones take one.
  const own = chips.length === 0 ? CLEAN : [];
  const art = drawing(...own, ...shapes.filter(({ fill }) => !fill || !('chip' in fill)));
  const withChips = changeArt(art, together(...chips.map((hex, i) => addChip({ id: NAMES[i]!, name: NAMES[i]!, hex })))).art; // prettier-ignore
  const rest = shapes.filter(({ fill }) => fill && 'chip' in fill);
  return frozen(more(changeArt(withChips, together(...rest.map((s) => addNode('layer', s)))).art));
};

const random0 = (): number => 0;

/** Kinds that the hand mends. */
const BY_HAND: readonly FindingKind[] = ['long-handle', 'crossed-handles', 'self-crossing', 'off-sheet', 'drifted', 'uncovered']; // prettier-ignore

describe('findings', () => {
  it('are none where nothing is wrong', () => {
    expect(findings(clean, T)).toEqual([]);
    for (const tolerances of Object.values(TOLERANCES)) expect(findings(clean, tolerances)).toEqual([]);
    expect(findings(emptyArt({ width: 10, height: 10, unit: 'px' }, 'layer'), T)).toEqual([]);
    expect(Object.keys(PLANTS).sort()).toEqual([...FINDING_KINDS].sort());
  });

  it('find each of 144 planted faults, where it is, and nothing besides; fixed, it is gone and nothing else changed', () => {
    const random = seeded(20);
    let count = 0;
    for (const kind of FINDING_KINDS)
      for (let round = 0; round < 6; round++) {
        const plants = PLANTS[kind];
        const [x, y, size] = [100 + 600 * random(), 100 + 500 * random(), 40 + 60 * random()];
        const plant = plants[round % plants.length]!(x, y, size, random);
        const { by = T, measured = [] } = plant;
        const art = planted(plant);
        const found = findings(art, by, measured);
        expect(found.map((f) => f.kind), `${kind} ${round}`).toEqual([kind]); // prettier-ignore
        count++;
        const [finding] = found as [Finding];
        if (finding.at && kind !== 'off-sheet') {
          expect(Math.abs(finding.at.x - x)).toBeLessThan(3 * size);
          expect(Math.abs(finding.at.y - y)).toBeLessThan(3 * size);
        }
        expect(finding.amount).toBeGreaterThan(0);
        const fix = fixFor(art, finding, by);
        if (!fix) {
          expect(BY_HAND).toContain(kind);
          continue;
        }
        const { art: fixed, inverse } = changeArt(art, fix);
        expect(findings(fixed, by), `${kind} ${round}, fixed`).toEqual([]);
        expect(inverse.length).toBeGreaterThan(0);
        for (const { shape } of shapesOf(art))
          if (!finding.shapes.includes(shape.id) && kind !== 'near-colours') expect(findShape(fixed, shape.id)).toBe(shape); // prettier-ignore
      }
    expect(count).toBe(144);
  });

  it('are mended all of a kind at once, but for those put aside', () => {
    const kinked = (id: string, x: number): Shape => PLANTS.kink[0]!(x, 200, 40, () => 0.5).shapes.map((s) => ({ ...s, id, paths: [{ ...s.paths[0]!, id: `${id}-k` }] }))[0]!; // prettier-ignore
    const wavy = line('wavy', pathOf([0, 1, 2, 3].map((k) => anchor(100 * k, 600, k === 0 ? null : [-40, 40], k === 3 ? null : [40, -40])), false, 'wavy-p')); // prettier-ignore
    const art = drawing(kinked('a', 100), kinked('b', 300), kinked('c', 500), wavy);
    const some = fixAll(art, 'kink', T, new Set(['kink b-k 1']));
    expect([some.count, findings(some.art, T).filter(({ kind }) => kind === 'kink').map(({ key }) => key)]).toEqual([2, ['kink b-k 1']]); // prettier-ignore
    // Each puts an anchor in, so that the others stand elsewhere.
    const turns = findings(art, T).filter(({ kind }) => kind === 'missing-anchor').length;
    const all = fixAll(art, 'missing-anchor', T);
    expect([turns, all.count]).toEqual([3, 3]);
    expect(findings(all.art, T).filter(({ kind }) => kind === 'missing-anchor')).toEqual([]);
    // What only the hand can mend is left.
    const long = drawing(...PLANTS['long-handle'][0]!(100, 100, 50, random0).shapes);
    expect(fixAll(long, 'long-handle', T)).toEqual({ art: long, count: 0 });
  });

  it('leave out what is hidden, and what is meant so', () => {
    const open = filled('f', pathOf([anchor(0, 0), anchor(50, 0), anchor(50, 50)], false, 'p'));
    expect(kinds(drawing(open))).toEqual(['open-fill']);
    expect(kinds(drawing({ ...open, shown: false }))).toEqual([]);
    expect(kinds(drawing({ ...open, meant: true }))).toEqual([]);
    // What is only left out of drift is proved: a mosaic's gaps are gaps.
    expect(kinds(drawing({ ...open, unmeasured: true }))).toEqual(['open-fill']);
  });

  it('know what lies beneath something from what only seems to', () => {
    const low = filled('low', circlePath(100, 100, 20, 'low'));
    const over = (values: Partial<Shape>): FindingKind[] => kinds(drawing(low, shapeOf('high', { fill: LEAF, paths: [circlePath(100, 100, 60, 'high')], ...values }))); // prettier-ignore
    expect(over({})).toEqual(['hidden']);
    expect(over({ opacity: 0.9 })).toEqual([]);
    expect(over({ blend: 'multiply' })).toEqual([]);
    expect(over({ fill: null, stroke: plainStroke(LEAF, 2) })).toEqual([]);
    expect(over({ paths: [circlePath(100, 100, 60, 'high'), circlePath(100, 100, 10, 'hole')] })).toEqual([]);
    // A line whose weight shows beyond what lies over it.
    expect(kinds(drawing(line('l', pathOf([anchor(70, 100), anchor(130, 102)], false, 'l'), 30), filled('high', squarePath(65, 90, 70, 'h'))))).toEqual([]); // prettier-ignore
  });

  it('know a gap between neighbours from what may lie apart', () => {
    const box = (id: string, x: number, y = 100, w = 60, h = 60): Shape => filled(id, pathOf([anchor(x, y), anchor(x + w, y), anchor(x + w, y + h), anchor(x, y + h)], true, `${id}-p`)); // prettier-ignore
    expect(kinds(drawing(box('a', 100), box('b', 160.5)))).toEqual(['gap']);
    // On each other, over each other, plainly apart, touching at a place, or with something beneath.
    expect(kinds(drawing(box('a', 100), box('b', 160)))).toEqual([]);
    expect(kinds(drawing(box('a', 100), box('b', 159)))).toEqual([]);
    expect(kinds(drawing(box('a', 100), box('b', 162)))).toEqual([]);
    expect(kinds(drawing(filled('a', circlePath(100, 100, 60, 'a')), filled('b', circlePath(220, 100, 60, 'b'))))).toEqual([]); // prettier-ignore
    expect(kinds(drawing(box('c', 120, 90, 80, 80), box('a', 100), box('b', 160.5)))).toEqual([]);
    // A wedge that opens from where they touch.
    const wedge = filled('w', pathOf([anchor(160, 100), anchor(220, 100), anchor(220, 160), anchor(164, 160)], true, 'w')); // prettier-ignore
    expect(kinds(drawing(box('a', 100), wedge)).filter((kind) => kind === 'gap')).toEqual([]);
    // A strip that closes at both ends lets light through.
    const bent = filled('s', pathOf([anchor(160, 100), anchor(220, 100), anchor(220, 160), anchor(160, 160, null, [0.9, -20])].map((a, i) => (i === 0 ? { ...a, in: { x: 0.9, y: 20 } } : a)), true, 's')); // prettier-ignore
    expect(kinds(drawing(box('a', 100), bent))).toEqual(['gap']);
  });

  it('mend a gap that runs most of the way round a neighbour, not the rest of it', () => {
    // Three quarters of a ring about a disc, half a pixel off it.
    const arc = circlePath(300, 300, 30.5).anchors.map((a, i) => ({ ...a, in: i === 0 ? null : a.in, out: i === 3 ? null : a.out, ...(i === 0 || i === 3 ? { kind: 'corner' as const } : {}) })); // prettier-ignore
    const low = filled('low', pathOf([...arc, anchor(300, 210), anchor(200, 200), anchor(205, 400), anchor(400, 410), anchor(390, 300)], true, 'low-p')); // prettier-ignore
    const art = drawing(low, filled('high', circlePath(300, 300, 30, 'high-p')));
    const found = findings(art, T).filter(({ kind }) => kind === 'gap');
    expect(found).toHaveLength(1);
    const { art: mended } = changeArt(art, fixFor(art, found[0]!, T)!);
    expect(findings(mended, T).filter(({ kind }) => kind === 'gap')).toEqual([]);
    // The ring still lies about the disc: its area is its own but for the sliver that it gained.
    const areaOf = (of: Art): number => Math.abs(pathArea(findShape(of, 'low')!.paths[0]!));
    expect(areaOf(mended) - areaOf(art)).toBeCloseTo(0.75 * Math.PI * (30.5 ** 2 - 30 ** 2), 0);
  });

  it('know a painted hole from a light on a shape', () => {
    const disc = filled('disc', circlePath(200, 200, 50, 'disc-p'));
    const white = shapeOf('white', { fill: { hex: '#fefefe' }, paths: [circlePath(200, 200, 20, 'white')] });
    expect(kinds(drawing(disc, white))).toEqual(['ground-patch']);
    // On another ground it is a colour; over something else beneath, cutting it open would show that.
    const onBlue = changeArt(drawing(disc, white), setSheet({ ground: '#3aa6d0' })).art;
    expect(findings(onBlue, T)).toEqual([]);
    const beneath = filled('big', circlePath(200, 200, 90, 'big'));
    expect(kinds(drawing(beneath, disc, white))).toEqual([]);
  });

  it('take forms, axes and lettering as they are', () => {
    const box = formPath(plainForm('box', { x: 200, y: 200, width: 80, height: 40, angle: 0.01 }), 'box');
    expect(kinds(drawing(filled('box', box)))).toEqual([]);
    expect(kinds(drawing(filled('e', formPath(plainForm('ellipse', { x: 200, y: 200, width: 80, height: 40 }), 'e'))))).toEqual([]); // prettier-ignore
  });

  it('keep a key while the thing stays, and a fix for what is gone is none', () => {
    const open = drawing(filled('f', pathOf([anchor(0, 0), anchor(50, 0), anchor(50, 50)], false, 'p')));
    const [one] = findings(open, T);
    expect(findings(changeArt(open, addNode('layer', filled('g', circlePath(200, 200, 20, 'g')))).art, T)[0]!.key).toBe(one!.key); // prettier-ignore
    expect(fixFor(clean, one!, T)).toBeNull();
    for (const kind of FINDING_KINDS)
      expect(fixFor(clean, { ...one!, kind, key: `${kind} x y`, shapes: ['nobody'] }, T) === null || ['tiny', 'hidden', 'sliver'].includes(kind)).toBe(true); // prettier-ignore
  });
});
