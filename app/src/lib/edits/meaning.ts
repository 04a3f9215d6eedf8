import {
  findNode,
  IDENTITY,
  mapShape,
  meantSegments,
  setMeant,
  setMeantSegments,
  setPath,
  setPlace,
  setUnmeasured,
  together,
  type Path,
  type Shape,
  type TreeNode,
} from '@mirrot/core';
import { chosenNodes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { segmentsOf } from './shaping';

/** Chosen segments, by path; null where whole shapes are chosen. */
function chosenSegments(desk: Desk): { shape: Shape; path: Path; segments: number[] }[] | null {
  const { segment, anchors } = desk.choice;
  if (!segment && anchors.length < 2) return null;
  const found = desk.chosenShapes.flatMap((shape) =>
    shape.paths.flatMap((path) => {
      const segments = segmentsOf(desk, path) ?? [];
      return segments.length > 0 ? [{ shape, path, segments }] : [];
    }),
  );
  return found.length > 0 ? found : null;
}

export const canMean = (desk: Desk): boolean => desk.choice.shapes.length > 0;

/** Whether all that is chosen is meant so. */
export function isMeant(desk: Desk): boolean {
  const parts = chosenSegments(desk);
  if (parts)
    return parts.every(({ path, segments }) => {
      const meant = meantSegments(path);
      return segments.every((s) => meant.has(s));
    });
  return desk.chosenShapes.length > 0 && desk.chosenShapes.every((s) => s.meant);
}

/** Marks the chosen segments, or else the chosen shapes, as leaving the picture on purpose, or takes the mark off. */
export function meanSo(desk: Desk): void {
  const on = !isMeant(desk);
  const parts = chosenSegments(desk);
  const recipe = parts
    ? together(...parts.map((p) => setPath(p.shape.id, setMeantSegments(p.path, p.segments, on))))
    : setMeant(desk.choice.shapes, on);
  desk.change(on ? 'Meant so' : 'No longer meant so', recipe, { choice: desk.choice });
}

/** Layers, groups and shapes that are chosen, pictures left out. */
const chosenToMeasure = (desk: Desk): string[] => chosenNodes(desk.choice, desk.art).filter((id) => findNode(desk.art, id)?.node.type !== 'picture'); // prettier-ignore
const leavesOut = (node: TreeNode | undefined): boolean => node !== undefined && 'unmeasured' in node;

export const canLeaveOut = (desk: Desk): boolean => chosenToMeasure(desk).length > 0;

/** Whether all that is chosen is left out of drift. */
export const isLeftOut = (desk: Desk): boolean => {
  const ids = chosenToMeasure(desk);
  return ids.length > 0 && ids.every((id) => leavesOut(findNode(desk.art, id)?.node));
};

/** Leaves a layer, a group or shapes out of drift as a whole, or measures them again. */
export function leaveOutOfDrift(desk: Desk): void {
  const on = !isLeftOut(desk);
  desk.change(on ? 'Leave out of drift' : 'Measure again', setUnmeasured(chosenToMeasure(desk), on), { choice: desk.choice, live: desk.live }); // prettier-ignore
}

/** Whether all chosen shapes remember where on the picture they lie. */
export const remembersPlace = (desk: Desk): boolean =>
  desk.chosenShapes.length > 0 && desk.chosenShapes.every((s) => s.place);

/** Chosen shapes remember their place on the picture from now on, however they are moved; or they forget it. */
export function rememberPlace(desk: Desk): void {
  const on = !remembersPlace(desk);
  desk.change(
    on ? 'Remember its place' : 'Forget its place',
    together(...desk.chosenShapes.map((s) => setPlace(s.id, on ? (s.place ?? IDENTITY) : null))),
    { choice: desk.choice },
  );
}

const isAway = ({ place }: Shape): boolean =>
  place?.some((v, i) => Math.abs(v - IDENTITY[i]!) > 1e-9) ?? false;
export const canPutBack = (desk: Desk): boolean => desk.chosenShapes.some(isAway);

/** Chosen shapes go back to the place on the picture that they remember. */
export function putBack(desk: Desk): void {
  const away = desk.chosenShapes.filter(isAway);
  desk.change('Put back on the picture', together(...away.map((s) => mapShape(s, s.place!))), {
    choice: desk.choice,
  });
}
