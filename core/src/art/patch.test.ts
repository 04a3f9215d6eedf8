import { describe, expect, it } from 'vitest';
import { MirrotError } from '../error';
import { seeded } from '../testing';
import { applyChecked, applyForeignPatches, changeArt, type Patch } from './change';
import { checkChange, readArt } from './check';
import { artDifference } from './difference';
import { addChip, addNode, moveNodes, removeChip, styleShapes, together } from './edits';
import { holdingsOf } from './holdings';
import { DEEPEST_GROUP, MOST_SHAPES } from './limits';
import { patchDocument } from './patch';
import type { Group, Shape } from './schema';
import { anyRecipe, blank, groupOf, idsOf, shapeOf, withShapes } from './testing';

const json = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

// Source outside: RFC 6902 (JSON Patch), appendix A, examples A.1 to A.5, A.10, A.16; written from memory.
describe('JSON patches', () => {
  it.each<[object, Patch[], object]>([
    [{ foo: 'bar' }, [{ op: 'add', path: '/baz', value: 'qux' }], { foo: 'bar', baz: 'qux' }],
    [{ foo: ['bar', 'baz'] }, [{ op: 'add', path: '/foo/1', value: 'qux' }], { foo: ['bar', 'qux', 'baz'] }],
    [{ baz: 'qux', foo: 'bar' }, [{ op: 'remove', path: '/baz' }], { foo: 'bar' }],
    [{ foo: ['bar', 'qux', 'baz'] }, [{ op: 'remove', path: '/foo/1' }], { foo: ['bar', 'baz'] }],
    [{ baz: 'qux' }, [{ op: 'replace', path: '/baz', value: 'boo' }], { baz: 'boo' }],
    [
      { foo: 'bar' },
      [{ op: 'add', path: '/child', value: { grand: {} } }],
      { foo: 'bar', child: { grand: {} } },
    ],
    [{ foo: ['bar'] }, [{ op: 'add', path: '/foo/-', value: ['abc'] }], { foo: ['bar', ['abc']] }],
    [{ '/': 9, '~1': 10 }, [{ op: 'replace', path: '/~01', value: 11 }], { '/': 9, '~1': 11 }],
  ])('%j by %j', (before, patches, after) => {
    const frozen = json(before);
    const { document, inverse } = patchDocument(before, patches);
    expect(document).toEqual(after);
    expect(before).toEqual(frozen);
    expect(patchDocument(document, inverse).document).toEqual(before);
  });

  it.each<Patch>([
    { op: 'replace', path: '', value: {} },
    { op: 'remove', path: '/nowhere' },
    { op: 'replace', path: '/nowhere', value: 1 },
    { op: 'replace', path: '/list/length', value: 4294967295 },
    { op: 'add', path: '/list/30000000', value: 1 },
    { op: 'add', path: '/list/01', value: 1 },
    { op: 'remove', path: '/list/2' },
    { op: 'remove', path: '/list/-' },
    { op: 'add', path: '/list/0/deeper', value: 1 },
    { op: 'add', path: '/__proto__/polluted', value: 1 },
    { op: 'add', path: '/constructor', value: 1 },
    { op: 'add', path: '/toString/x', value: 1 },
    { op: 'replace', path: '/list/0' } as Patch,
  ])('that name no place are refused: %j', (patch) => {
    const document = { list: [1, 2] };
    expect(() => patchDocument(document, [{ op: 'replace', path: '/list/0', value: 9 }, patch])).toThrow(
      /names a place that the drawing does not have/,
    );
    expect(document).toEqual({ list: [1, 2] });
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
  });

  it('leave what they do not touch the same object, and do not write into what they bring', () => {
    const art = withShapes(shapeOf('a'), shapeOf('b'));
    const value = shapeOf('c');
    const { document } = patchDocument(art, [
      { op: 'add', path: '/layers/0/children/-', value },
      { op: 'replace', path: '/layers/0/children/2/name', value: 'Leaf' },
    ]);
    expect(document.layers[0]!.children[0]).toBe(art.layers[0]!.children[0]);
    expect(document.chips).toBe(art.chips);
    expect(value.name).toBe('c');
    expect(document.layers[0]!.children[2]!.name).toBe('Leaf');
  });
});

describe('patches from outside', () => {
  const art = withShapes(shapeOf('a'));
  it('are applied and what they changed is checked', () => {
    const { art: next, patches } = changeArt(art, addNode('layer', shapeOf('b')));
    expect(applyForeignPatches(art, json(patches) as Patch[])).toEqual(next);
  });

  it.each([
    [{ op: 'replace', path: '/layers/7/name', value: 'x' }],
    [{ op: 'replace', path: '/layers/0/children/0/paths/0/anchors/0/x', value: null }],
    [{ op: 'replace', path: '/layers/0/children/0/paths/0/anchors/0/x', value: 1e300 }],
    [{ op: 'replace', path: '/layers/0/children/0/paths/0/anchors', value: [] }],
    [{ op: 'replace', path: '/layers/0/children/0/paths', value: [] }],
    [{ op: 'remove', path: '/layers/0/children' }],
    [{ op: 'replace', path: '/layers', value: [] }],
    [{ op: 'replace', path: '/layers/0/children/0', value: null }],
    [{ op: 'add', path: '/layers/0/children/0', value: shapeOf('a') }],
    [{ op: 'add', path: '/layers/0/children/0', value: shapeOf('b', { paths: shapeOf('a').paths }) }],
    [{ op: 'replace', path: '/layers/0/children/0/id', value: 'layer' }],
    [{ op: 'replace', path: '/layers/0/children/0/type', value: 'group' }],
    [{ op: 'replace', path: '/layers/0/name', value: '\ud83c' }],
    [{ op: 'replace', path: '/layers/0/name', value: 'x\uffff' }],
    [{ op: 'replace', path: '/traced', value: 'nobody' }],
    [{ op: 'replace', path: '/sheet/width', value: 1e-300 }],
    [{ op: 'replace', path: '/version', value: 1 }],
    [{ op: 'remove', path: '/version' }],
    [{ op: 'remove', path: '/sheet' }],
    [{ op: 'add', path: '/extra', value: 1 }],
    [{ op: 'add', path: '/layers/0/children/0/extra', value: 1 }],
    [{ op: 'replace', path: '/__proto__/polluted', value: 1 }],
  ])('are refused when they make no drawing: %j', (patch) => {
    const holdings = holdingsOf(art);
    expect(() => applyChecked(art, [patch as Patch], holdings)).toThrowError(MirrotError);
    expect(holdings).toEqual(holdingsOf(art));
  });

  it('are refused where they name a chip or a picture that is not there, or take one away that is used', () => {
    const used = changeArt(art, together(addChip({ id: 'k', name: '', hex: '#112233' }), styleShapes(['a'], { fill: { chip: 'k' } }))).art; // prettier-ignore
    const holdings = holdingsOf(used);
    const [shape] = used.layers[0]!.children;
    for (const patch of [
      { op: 'replace', path: '/layers/0/children/0/fill', value: { chip: 'none' } },
      { op: 'remove', path: '/chips/0' },
      {
        op: 'add',
        path: '/layers/0/children/0',
        value: {
          id: 'n',
          type: 'picture',
          name: 'n',
          shown: true,
          locked: false,
          opacity: 1,
          picture: 'none',
        },
      },
    ] as const)
      expect(() => applyChecked(used, [patch], holdings)).toThrowError(MirrotError);
    expect(() => readArt({ ...used, chips: [] })).toThrow(/chip or picture k is used/);
    // Taken away with its use it goes.
    const gone = changeArt(used, removeChip('k'));
    expect(applyChecked(used, gone.patches, holdings).holdings.uses.size).toBe(0);
    expect(shape).toHaveProperty('fill', { chip: 'k' });
  });

  it('find what the whole check finds, over random changes, and count what the whole count counts', () => {
    const random = seeded(7);
    let n = 0;
    let now = withShapes(shapeOf('a'), groupOf('g', shapeOf('b')));
    let holdings = holdingsOf(now);
    for (let k = 0; k < 400; k++) {
      const { patches, art: next } = changeArt(
        now,
        anyRecipe(random, now, () => `n${n++}`),
      );
      ({ art: now, holdings } = applyChecked(now, patches, holdings));
      expect(now).toEqual(next);
      expect(holdings).toEqual(holdingsOf(now));
    }
    expect(readArt(json(now))).toEqual(now);
    // And what is spoilt anywhere is found by both.
    const text = JSON.stringify(now);
    for (let k = 0; k < 200; k++) {
      const numbers = [...text.matchAll(/:(-?[\d.]+)/g)];
      const at = numbers[Math.floor(random() * numbers.length)]!;
      const spoilt = JSON.parse(text.slice(0, at.index + 1) + '"no"' + text.slice(at.index + at[0].length)) as typeof now; // prettier-ignore
      expect(() => readArt(spoilt)).toThrow(MirrotError);
      expect(() => checkChange(now, spoilt, holdingsOf(now))).toThrow(MirrotError);
    }
  });

  it(`are refused beyond ${DEEPEST_GROUP} groups in each other, ${MOST_SHAPES} shapes, 2 million anchors`, () => {
    const nested = (deep: number): Group | Shape =>
      Array.from({ length: deep }).reduce<Group | Shape>(
        (node, _, i) => groupOf(`g${i}`, node),
        shapeOf('s'),
      );
    const add = (node: Group | Shape) => applyChecked(blank, [{ op: 'add', path: '/layers/0/children/-', value: node }]); // prettier-ignore
    expect(idsOf(add(nested(DEEPEST_GROUP)).art)).toEqual(['s']);
    expect(readArt(add(nested(DEEPEST_GROUP)).art)).toBeDefined();
    expect(() => add(nested(DEEPEST_GROUP + 1))).toThrow('64 deep at most');
    expect(() => add(nested(3000))).toThrow('64 deep at most');
    expect(() => readArt({ ...blank, layers: [{ ...blank.layers[0], children: [nested(3000)] }] })).toThrow(
      '64 deep at most',
    );
    const many = groupOf('many', ...Array.from({ length: MOST_SHAPES + 1 }, (_, i) => shapeOf(`s${i}`)));
    expect(() => add(many)).toThrow('20,000 shapes at most');
    const anchors = Array.from({ length: 40_000 }, () => shapeOf('x').paths[0]!.anchors[0]!);
    const turned = shapeOf('t', {
      paths: [{ id: 'p', closed: false, anchors }],
      axis: { kind: 'turn', x: 0, y: 0, parts: 60 },
    });
    expect(() => add(turned)).toThrow('2,000,000 anchors at most');
  });
});

describe('the difference of two drawings', () => {
  it('leads from one to the other, and costs what differs', () => {
    const random = seeded(11);
    let n = 0;
    const start = withShapes(shapeOf('a'), groupOf('g', shapeOf('b')), shapeOf('c'));
    for (let round = 0; round < 60; round++) {
      let other = start;
      for (let k = 0; k < 1 + round / 4; k++)
        other = changeArt(
          other,
          anyRecipe(random, other, () => `n${n++}`),
        ).art;
      for (const [from, to] of [
        [start, other],
        [other, start],
        [start, json(other)],
      ] as const)
        // prettier-ignore
        expect(applyChecked(from, artDifference(from, to)).art).toEqual(to);
    }
    const many = withShapes(...Array.from({ length: 300 }, (_, i) => shapeOf(`s${i}`)));
    expect(artDifference(many, json(many))).toEqual([]);
    const moved = changeArt(many, moveNodes(['s299'], 'layer', 0)).art;
    expect(artDifference(many, moved)).toHaveLength(2);
    const renamed = json(changeArt(many, (d) => void (d.layers[0]!.children[7]!.name = 'Leaf')).art);
    expect(artDifference(many, renamed)).toEqual([
      { op: 'replace', path: '/layers/0/children/7/name', value: 'Leaf' },
    ]);
  });
});
