import { squarePath } from '../testing';
import { changeArt, type Recipe } from './change';
import {
  addChip,
  addLayer,
  addNode,
  keepColourway,
  putOn,
  replaceChips,
  takeOff,
  toneShapes,
  freeGroups,
  groupNodes,
  moveNodes,
  paintShapes,
  removeChip,
  removeNodes,
  setChip,
  setClip,
  setCovering,
  setNode,
  setPath,
  setSheet,
  styleShapes,
} from './edits';
import type { Art, Group, Shape } from './schema';
import { emptyArt } from './blank';
import { findShape, nodePlaces, parentOf, shapesOf } from './tree';

// Shared by tests only.

export const shapeOf = (id: string, values: Partial<Shape> = {}): Shape => ({
  id,
  type: 'shape',
  name: id,
  shown: true,
  locked: false,
  opacity: 1,
  fill: { hex: '#2f6b4f' },
  stroke: null,
  paths: [squarePath(0, 0, 10, `${id}-p`)],
  ...values,
});

export const groupOf = (id: string, ...children: Group['children']): Group => ({
  id,
  type: 'group',
  name: id,
  shown: true,
  locked: false,
  opacity: 1,
  children,
});

export const blank = emptyArt({ width: 100, height: 80, unit: 'mm' }, 'layer');

/** Frozen through and through: whoever changes a document in place, instead of making the next one, fails. */
export function frozen<T>(value: T): T {
  if (typeof value === 'object' && value !== null) Object.values(Object.freeze(value)).forEach(frozen);
  return value;
}

export const withShapes = (...nodes: Group['children']): Art =>
  frozen(nodes.reduce((art, s) => changeArt(art, addNode('layer', s)).art, blank));

export const idsOf = (art: Art): string[] => shapesOf(art).map(({ shape }) => shape.id);

/** Something a hand might do, by chance: draws, takes away, moves in the stack, colours, shapes, names. */
export function anyRecipe(random: () => number, art: Art, newId: () => string): Recipe {
  const shapes = shapesOf(art).map(({ shape }) => shape);
  const shape = shapes[Math.floor(random() * shapes.length)];
  const layer = art.layers[Math.floor(random() * art.layers.length)]!;
  const nodes = [...nodePlaces(art).keys()];
  const hex = `#${Math.floor(random() * 0xffffff).toString(16).padStart(6, '0')}`; // prettier-ignore
  const pick = Math.floor(random() * 22);
  const node = nodes[Math.floor(random() * nodes.length)]!;
  const chip = art.chips[Math.floor(random() * art.chips.length)];
  if (!shape || pick === 0) return addNode(layer.id, shapeOf(newId()), Math.floor(random() * 4));
  if (pick === 1) return removeNodes([shape.id]);
  if (pick === 2) return moveNodes([shape.id], node, Math.floor(random() * 8));
  if (pick === 3) return styleShapes([shape.id], { fill: { hex } });
  if (pick === 4) return setNode(shape.id, { name: `Name ${Math.floor(random() * 1e6)}` });
  if (pick === 5) return addChip({ id: newId(), name: '', hex });
  if (pick === 6) return addLayer({ id: newId(), type: 'layer', name: 'Layer', shown: true, locked: false, opacity: 1, ink: null, children: [] }, null); // prettier-ignore
  if (pick === 7) return addNode(layer.id, groupOf(newId(), shapeOf(newId()), shapeOf(newId())));
  if (pick === 8) return setSheet({ ground: hex });
  if (pick === 9) return paintShapes([shape.id], random() < 0.5 ? 'fill' : 'stroke', chip ? { chip: chip.id } : { hex }, 2); // prettier-ignore
  if (pick === 10) return chip ? removeChip(chip.id) : setChip('nobody', {});
  if (pick === 11) return groupNodes([shape.id, node], groupOf(newId()));
  if (pick === 12) return freeGroups([node]);
  if (pick === 13) return setClip(parentOf(art, shape.id)!.id, random() < 0.7 ? shape.id : null);
  if (pick === 14)
    return setCovering([node], { opacity: random(), blend: random() < 0.5 ? 'multiply' : 'normal' });
  if (pick === 16) return takeOff([shape.id], random() < 0.5 ? 'fill' : 'stroke');
  if (pick === 17) return putOn([shape.id], 'fill', { hex }, 2);
  if (pick === 18)
    return toneShapes([{ id: shape.id, tone: hex, colour: chip ? { chip: chip.id } : { hex } }]);
  if (pick === 19) return keepColourway({ id: newId(), name: 'Evening', hexes: Object.fromEntries(art.chips.map((c) => [c.id, hex])) }); // prettier-ignore
  if (pick === 20) return replaceChips(art.chips.slice(1).map(({ id }) => id), art.chips[0]?.id ?? 'none'); // prettier-ignore
  if (pick === 21) return setCovering([node], { shadow: random() < 0.5 ? { x: 1, y: 2, blur: 3, hex, opacity: 0.5 } : null }); // prettier-ignore
  const path = findShape(art, shape.id)!.paths[0]!;
  const moved = Math.floor(random() * path.anchors.length);
  return setPath(shape.id, {
    ...path,
    anchors: path.anchors.map((a, i) => (i === moved ? { ...a, x: a.x + random() * 9 } : a)),
  });
}
