import {
  cutText,
  findNode,
  freeHole,
  makeHole,
  MOST_CHARACTERS,
  pathInside,
  shapesOf,
  type Shape,
  wholePaths,
} from '@mirrot/core';
import { chooseShapes } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import { newId } from '$lib/ids';
import { withoutOwnLines } from './new-lines';

const one = (desk: Desk): Shape | null =>
  desk.choice.shapes.length === 1 ? (desk.chosenShapes[0] ?? null) : null;

/** The shape just outside a chosen one: the topmost open to change that it lies wholly inside, below it first. */
export function hostOf(desk: Desk): Shape | null {
  const shape =
    one(desk) ??
    (desk.choosing.justEnded
      ? (shapesOf(desk.art).find((p) => p.shape.id === desk.choosing.justEnded)?.shape ?? null)
      : null);
  if (!shape) return null;
  const placed = shapesOf(desk.art).filter((p) => p.shown && !p.locked);
  const at = placed.findIndex((p) => p.shape.id === shape.id);
  const around = (other: Shape): boolean =>
    other.id !== shape.id &&
    wholePaths(other)[0]!.closed &&
    wholePaths(shape).every((p) => pathInside(p, wholePaths(other)[0]!));
  const below = placed.slice(0, Math.max(0, at)).reverse();
  return [...below, ...placed.slice(at + 1)].map((p) => p.shape).find(around) ?? null;
}

const holeMaker = (desk: Desk): string | null => one(desk)?.id ?? desk.choosing.justEnded;

/** The hole to free: the one whose anchors or segment are chosen, else the last. */
export function holeToFree(desk: Desk): string | null {
  const shape = one(desk);
  if (!shape || shape.paths.length < 2) return null;
  const chosen = desk.choice.anchors[0]?.path ?? desk.choice.segment?.path;
  return shape.paths.slice(1).find((p) => p.id === chosen)?.id ?? shape.paths.at(-1)!.id;
}

/** Makes what is chosen, or was just drawn, a hole in the shape around it. */
export function makeHoleOfChosen(desk: Desk): void {
  const host = hostOf(desk);
  const hole = holeMaker(desk);
  if (!host || !hole) return;
  desk.choosing.justEnded = null;
  desk.change(`Hole in ${host.name}`, makeHole(hole, host.id), {
    choice: chooseShapes([host.id], 'path'),
    live: null,
  });
}

/** Makes a hole of the chosen shape a shape of its own. */
export function freeChosenHole(desk: Desk): void {
  const host = one(desk);
  const path = holeToFree(desk);
  if (!host || !path || !findNode(desk.art, host.id)) return;
  const { paths: _paths, ...rest } = withoutOwnLines(host);
  const id = newId();
  desk.change(
    'Free the hole',
    freeHole(host.id, path, { ...rest, id, name: cutText(`Hole in ${host.name}`, MOST_CHARACTERS) }),
    {
      choice: chooseShapes([id], 'path'),
    },
  );
}
