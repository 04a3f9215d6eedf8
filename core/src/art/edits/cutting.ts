import { IDENTITY, translation } from '../../geometry/affine';
import type { Point } from '../../geometry/vector';
import type { Recipe } from '../change';
import { changedPaints, chipsOf, mapColours, type Colour } from '../paint';
import { emptyArt } from '../blank';
import type { Art, ArtNode, Chip } from '../schema';
import { copyNames } from '../text';
import { nodeNames, shapesIn } from '../tree';
import { mapApart } from './arranging';
import { freshCopies, nodesToCopy } from './copying';
import { cloned } from './draft';
import { addNodes, together } from './nodes';
import { addChip } from './style';

// What is copied is a small document of its own: it is checked as any other when it comes back.

/**
 * A document with nothing but some shapes, groups and pictures of a drawing, bottom first, and the chips and pictures these
 * take. Its sheet is the drawing's. Layers and what is not there are left out; null when nothing is left.
 */
export function cuttingOf(art: Art, ids: readonly string[]): Art | null {
  const nodes = nodesToCopy(art, ids);
  if (nodes.length === 0) return null;
  const { width, height, unit } = art.sheet;
  const empty = emptyArt({ width, height, unit }, 'cutting');
  const used = new Set(nodes.flatMap(shapesIn).flatMap(chipsOf));
  const placed = new Set(nodes.flatMap(picturesIn));
  return {
    ...empty,
    sheet: art.sheet,
    pictures: art.pictures.filter(({ id }) => placed.has(id)),
    layers: [{ ...empty.layers[0]!, children: nodes }],
    chips: art.chips.filter(({ id }) => used.has(id)),
  };
}

const picturesIn = (node: ArtNode): string[] =>
  node.type === 'picture' ? [node.picture] : node.type === 'group' ? node.children.flatMap(picturesIn) : [];

/** A node without the pictures that a drawing does not have; null when nothing is left of it. */
function withoutPictures(node: ArtNode, known: ReadonlySet<string>): ArtNode | null {
  if (node.type === 'picture') return known.has(node.picture) ? node : null;
  if (node.type === 'shape') return node;
  const children = node.children.flatMap((child) => withoutPictures(child, known) ?? []);
  return children.length === 0 && node.children.length > 0 ? null : { ...node, children };
}

/** What is put into a drawing, and what could not be. */
export interface Pasting {
  readonly recipe: Recipe;
  /** The outermost nodes put in, bottom first. */
  readonly nodes: readonly ArtNode[];
  /** How many pictures stay behind, since the drawing does not have them. */
  readonly left: number;
}

/**
 * Puts what was copied into a layer or group, on top, where it stood or moved from there. All of it has ids of its own. A
 * chip that the drawing has (the same one, or one of the same colour) is taken; others come along.
 *
 * @param by sheet pixels
 * @param newId gives an id that is not in the drawing, another one each time
 */
export function pasteCutting(
  art: Art,
  cutting: Art,
  parentId: string,
  by: Point,
  newId: () => string,
): Pasting {
  const known = new Set(art.pictures.map(({ id }) => id));
  const all = cutting.layers.flatMap((layer) => layer.children);
  const nodes = all.flatMap((node) => withoutPictures(node, known) ?? []);
  const chips = new Map<string, string>();
  const added: Chip[] = [];
  for (const chip of cutting.chips) {
    const same = art.chips.find((c) => c.id === chip.id && c.hex === chip.hex) ?? art.chips.find((c) => c.hex === chip.hex); // prettier-ignore
    if (!same) added.push({ ...chip, id: newId() });
    chips.set(chip.id, (same ?? added.at(-1)!).id);
  }
  const recolour = (colour: Colour): Colour =>
    'chip' in colour ? { ...colour, chip: chips.get(colour.chip) ?? colour.chip } : colour;
  const recoloured = (node: ArtNode): ArtNode =>
    node.type === 'shape'
      ? { ...node, ...changedPaints(node, (paint) => mapColours(paint, recolour)) }
      : node.type === 'group'
        ? { ...node, children: node.children.map(recoloured) }
        : node;
  const nameOf = copyNames(nodeNames(art));
  const fresh = freshCopies(nodes.map(recoloured), newId).map((node) => ({
    ...node,
    name: nameOf(node.name),
  }));
  const made = mapApart(fresh, by.x === 0 && by.y === 0 ? IDENTITY : translation(by.x, by.y));
  return {
    recipe: together(
      ...added.map(addChip),
      // Fresh each time: what is put into a draft is the draft's to change.
      (draft) => addNodes(parentId, cloned(made))(draft),
    ),
    nodes: made,
    left: all.flatMap(picturesIn).filter((id) => !known.has(id)).length,
  };
}
