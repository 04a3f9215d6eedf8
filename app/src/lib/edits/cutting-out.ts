import {
  addNodes,
  boxHeight,
  boxWidth,
  compose,
  DARKEST_GROUND,
  EMPTY_BOX,
  findNode,
  freeGroups,
  groundLight,
  groupNodes,
  inPaintOrder,
  invert,
  moveNodes,
  nodeNames,
  numberedName,
  pathBounds,
  previewArt,
  putOn,
  removeNodes,
  scaling,
  setClip,
  setCutEdge,
  takeOff,
  together,
  uniteBoxes,
  wholePaths,
  type CutEdge,
  type Group,
  type Path,
  type PictureNode,
  type Recipe,
  type Shape,
} from '@mirrot/core';
import { chosenNodes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { loadPixels } from '$lib/desk/rasters';
import { newId } from '$lib/ids';
import { chooseIds } from './copying';
import { groupsChosen } from './grouping';
import { FIRST_WEIGHT } from './painting';
import { pourFill } from './pouring';

// The traced picture, or other things in the stack, clipped by a shape: a group whose lowest shape is the edge. It stays live.

/** What is chosen, the lowest first. */
const chosenInOrder = (desk: Desk): readonly string[] =>
  inPaintOrder(desk.drawing.kept, chosenNodes(desk.choice, desk.drawing.kept));

/** The shape that cuts: the topmost of what is chosen, closed; null where there is none. */
export function shapeToCut(desk: Desk): Shape | null {
  const ids = chosenInOrder(desk);
  const top = ids.at(-1);
  const node = top === undefined ? null : findNode(desk.drawing.kept, top)?.node;
  if (node?.type !== 'shape' || !node.paths.every((path) => path.closed)) return null;
  return ids.length > 1 || desk.picture.traced ? node : null;
}

/** Its paint would lie beneath the picture and show at its edge: it is taken off, and kept. */
const bare = (id: string): Recipe => together(takeOff([id], 'fill'), takeOff([id], 'stroke'));

/** Cuts the traced picture out by the one chosen shape, or all else that is chosen by the topmost of it. */
export function cutOut(desk: Desk): void {
  const shape = shapeToCut(desk);
  if (!shape) return;
  const ids = chosenInOrder(desk);
  const { traced } = desk.picture;
  const group: Omit<Group, 'children'> = {
    id: newId(),
    type: 'group',
    name: numberedName('Cutout', nodeNames(desk.art)),
    shown: true,
    locked: false,
    opacity: 1,
  };
  const stands = { shown: true, locked: false, opacity: 1 };
  const picture: PictureNode[] =
    ids.length === 1 && traced ? [{ id: newId(), type: 'picture', name: traced.name, picture: traced.id, ...stands }] : []; // prettier-ignore
  const recipe = together(
    groupNodes(ids, group),
    moveNodes([shape.id], group.id, 0),
    (draft) => addNodes(group.id, picture.map((node) => ({ ...node })))(draft), // prettier-ignore
    setClip(group.id, shape.id),
    bare(shape.id),
  );
  desk.change('Cut out', recipe, { choice: chooseIds(previewArt(desk.art, recipe), [group.id]) });
}

/** As `cutOut`; says so where nothing can be cut. */
export function cutOutOrSay(desk: Desk): void {
  if (shapeToCut(desk)) cutOut(desk);
  else
    desk.say('Choose a closed shape over the picture, or one above what it is to cut. Nothing was changed.');
}

/** Chosen groups that a shape clips. */
export const cutoutsChosen = (desk: Desk): readonly Group[] =>
  groupsChosen(desk).filter((group) => group.clip !== undefined);

/** Gives back what was cut out: the shape with its paint, and what it cut; a picture that came only for it goes. */
export function releaseCutouts(desk: Desk): void {
  const groups = cutoutsChosen(desk);
  const left: string[] = [];
  const recipes = groups.map((group): Recipe => {
    const others = group.children.filter(({ id }) => id !== group.clip);
    const [only, ...more] = others;
    const onlyPicture = only?.type === 'picture' && more.length === 0;
    left.push(group.clip!, ...(onlyPicture ? [] : others.map(({ id }) => id)));
    const shape = group.children.find(({ id }) => id === group.clip) as Shape;
    const paints = (['fill', 'stroke'] as const).flatMap((target) =>
      shape.aside?.[target] ? [putOn([shape.id], target, pourFill(desk), FIRST_WEIGHT)] : [],
    );
    // It stood on top of what it cut.
    const back = onlyPicture ? removeNodes([only.id]) : moveNodes([shape.id], group.id);
    return together(back, freeGroups([group.id]), ...paints);
  });
  const recipe = together(...recipes);
  desk.change('Release the cutout', recipe, { choice: chooseIds(previewArt(desk.art, recipe), left) });
}

/** How a cutout ends at its outline; one of which nothing is said, sharply along it. */
export const edgeOf = (group: Group): CutEdge => group.edge ?? { by: 0, soft: 0 };

/** Moves or softens the edge of cutouts. */
export function setEdges(
  desk: Desk,
  groups: readonly Group[],
  edge: Partial<Pick<CutEdge, 'by' | 'soft'>>,
): void {
  const label = edge.by === undefined ? 'Soften the cutout’s edge' : 'Move the cutout’s edge';
  desk.change(label, together(...groups.map((group) => setCutEdge(group.id, { ...edgeOf(group), ...edge }))));
}

/** The reach of a new shadow, share of the outline's longer side. */
const REACH_SHARE = 0.25;

/** The outlines that cut a group. */
const outlinesOf = (group: Group): readonly Path[] => {
  const shape = group.children.find(({ id }) => id === group.clip);
  return shape?.type === 'shape' ? wholePaths(shape) : [];
};

/** Sets how far the shadow of cutouts reaches. */
export const setShadowReach = (desk: Desk, groups: readonly Group[], reach: number): boolean =>
  desk.change(
    'Reach of the shadow',
    together(
      ...groups.flatMap((group) => {
        const edge = edgeOf(group);
        return edge.shadow ? [setCutEdge(group.id, { ...edge, shadow: { ...edge.shadow, reach } })] : [];
      }),
    ),
  );

/**
 * Lets the soft shadow stay on one side of a cutout, darker than the ground as its picture shows it there; or takes it away.
 *
 * @param side radians clockwise on screen from the right; null for no shadow
 */
export async function leaveShadow(desk: Desk, group: Group, side: number | null): Promise<void> {
  const { by, soft, shadow } = edgeOf(group);
  if (side === null) return void desk.change('Without the shadow', setCutEdge(group.id, { by, soft }));
  const paths = outlinesOf(group);
  const box = paths.map(pathBounds).reduce(uniteBoxes, EMPTY_BOX);
  const reach = shadow?.reach ?? Math.max(1, REACH_SHARE * Math.max(boxWidth(box), boxHeight(box)));
  const node = group.children.find((child) => child.type === 'picture');
  const picture = desk.art.pictures.find(({ id }) => id === node?.picture);
  if (!picture)
    return desk.say('There is no picture in this cutout whose shadow could stay. Nothing was changed.');
  const loaded = await loadPixels(picture).catch(() => null);
  if (!loaded) return desk.say('The picture’s pixels could not be read. Nothing was changed.', 'bad');
  loaded.image?.close();
  const toPixels = invert(compose(picture.placement, scaling(loaded.step)));
  const ground = toPixels && groundLight(loaded.pixels, toPixels, paths, side, reach);
  if (ground === null) return desk.say('The picture shows nothing on that side. Nothing was changed.');
  // What was changed meanwhile stays.
  const now = findNode(desk.art, group.id)?.node;
  if (now?.type !== 'group' || now.clip === undefined) return;
  const left = { side, reach, ground: Math.max(DARKEST_GROUND, ground) };
  desk.change('Leave the soft shadow', setCutEdge(group.id, { ...edgeOf(now), shadow: left }));
}
