import {
  findNode,
  findShape,
  formatLength,
  outermost,
  shapesIn,
  type Art,
  type HandleSide,
  type Path,
  type Shape,
  type TreeNode,
} from '@mirrot/core';

/** An anchor by where it stands. */
export interface AnchorRef {
  readonly shape: string;
  readonly path: string;
  readonly index: number;
}

export interface SegmentRef {
  readonly shape: string;
  readonly path: string;
  readonly segment: number;
}

export interface HandleRef extends AnchorRef {
  readonly side: HandleSide;
}

/** What is chosen. Level "path" shows the anchors of the chosen shapes, level "shape" their box. */
export interface Choice {
  readonly level: 'shape' | 'path';
  /** Shapes chosen by themselves, and all that stand in the nodes chosen as wholes. */
  readonly shapes: readonly string[];
  /** Layers, groups and pictures in the tree that are chosen as wholes. */
  readonly nodes: readonly string[];
  readonly anchors: readonly AnchorRef[];
  readonly handle: HandleRef | null;
  readonly segment: SegmentRef | null;
}

export const NOTHING_CHOSEN: Choice = {
  level: 'shape',
  shapes: [],
  nodes: [],
  anchors: [],
  handle: null,
  segment: null,
};

export const chooseShapes = (shapes: readonly string[], level: Choice['level'] = 'shape'): Choice => ({
  ...NOTHING_CHOSEN,
  level,
  shapes,
});

/** Chooses nodes of the tree as wholes, with all the shapes in them. */
export const chooseNodes = (nodes: readonly TreeNode[]): Choice => ({
  ...NOTHING_CHOSEN,
  shapes: nodes.flatMap((node) => shapesIn(node).map(({ id }) => id)),
  nodes: nodes.flatMap((node) => (node.type === 'shape' ? [] : [node.id])),
});

/** Ids of what is chosen as nodes of the tree, none that stands in another of them. */
export const chosenNodes = ({ nodes, shapes }: Choice, art: Art): readonly string[] =>
  nodes.length === 0 ? shapes : outermost(art, [...nodes, ...shapes]);

export const chooseAnchors = (anchors: readonly AnchorRef[]): Choice => ({
  ...NOTHING_CHOSEN,
  level: 'path',
  shapes: [...new Set(anchors.map((a) => a.shape))],
  anchors,
});

export const sameAnchor = (a: AnchorRef, b: AnchorRef): boolean =>
  a.path === b.path && a.index === b.index && a.shape === b.shape;

export const isAnchorChosen = (choice: Choice, ref: AnchorRef): boolean =>
  choice.anchors.some((a) => sameAnchor(a, ref));

/** The choice with an anchor added, or taken out when it was in. */
export function toggledAnchor(choice: Choice, ref: AnchorRef): Choice {
  const anchors = isAnchorChosen(choice, ref)
    ? choice.anchors.filter((a) => !sameAnchor(a, ref))
    : [...choice.anchors, ref];
  const shapes = choice.shapes.includes(ref.shape) ? choice.shapes : [...choice.shapes, ref.shape];
  return { ...NOTHING_CHOSEN, level: 'path', shapes, anchors };
}

export const findPath = (shape: Shape | null, id: string): Path | null =>
  shape?.paths.find((p) => p.id === id) ?? null;

/** The choice with everything left out that the document no longer has. */
export function stillThere(choice: Choice, art: Art): Choice {
  const has = (ref: { shape: string; path: string }, index: number): boolean =>
    index < (findPath(findShape(art, ref.shape), ref.path)?.anchors.length ?? 0);
  const shapes = choice.shapes.filter((id) => findShape(art, id));
  const nodes = choice.nodes.filter((id) => findNode(art, id));
  const anchors = choice.anchors.filter((a) => has(a, a.index));
  const handle = choice.handle && has(choice.handle, choice.handle.index) ? choice.handle : null;
  const segment = choice.segment && has(choice.segment, choice.segment.segment) ? choice.segment : null;
  const same =
    shapes.length === choice.shapes.length && nodes.length === choice.nodes.length &&
    anchors.length === choice.anchors.length &&
    handle === choice.handle && segment === choice.segment; // prettier-ignore
  return same ? choice : { ...choice, shapes, nodes, anchors, handle, segment };
}

const many = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

/** What is chosen, in words: "3 anchors", "Shape 4". */
export function choiceInWords(choice: Choice, art: Art): string {
  if (choice.handle) return `the ${choice.handle.side === 'in' ? 'arriving' : 'leaving'} handle of 1 anchor`;
  const [one, ...more] = choice.anchors;
  if (one && more.length === 0) {
    const path = findPath(findShape(art, one.shape), one.path);
    const anchor = path?.anchors[one.index];
    const { unit } = art.sheet;
    if (path && anchor)
      return `anchor ${one.index + 1} of ${path.anchors.length}, ${anchor.kind}, x ${formatLength(anchor.x, unit)}, y ${formatLength(anchor.y, unit)}`;
  }
  if (choice.anchors.length > 0) return many(choice.anchors.length, 'anchor');
  if (choice.segment) return '1 segment';
  const [node, ...others] = chosenNodes(choice, art).map((id) => findNode(art, id)?.node);
  if (node && node.type !== 'shape' && others.length === 0)
    return node.type === 'picture' ? node.name : `${node.name}, ${many(choice.shapes.length, 'shape')}`;
  if (choice.shapes.length === 0)
    return choice.nodes.length === 0 ? 'nothing chosen' : many(choice.nodes.length, 'group');
  if (choice.shapes.length > 1) return many(choice.shapes.length, 'shape');
  return findShape(art, choice.shapes[0]!)?.name ?? 'nothing chosen';
}
