import {
  formatLength,
  makeSymmetric,
  MirrotError,
  ownCentre,
  ownMirrorAxis,
  setPath,
  together,
  type Axis,
  type Lead,
  type Path,
} from '@mirrot/core';
import type { Desk } from '$lib/desk/desk.svelte';
import { axisLine, shapesToEven } from './axes';

const NEXT: Readonly<Record<Axis['kind'], Partial<Record<Lead, Lead>>>> = {
  mirror: { all: 'one', one: 'other' },
  turn: { all: 'one' },
};
const WORDS: Readonly<Record<Axis['kind'], Readonly<Record<Lead, string>>>> = {
  mirror: { all: 'mean of both sides', one: 'one side leads', other: 'the other side leads' },
  turn: { all: 'mean of all parts', one: 'the first part leads', other: 'the first part leads' },
};

/** The axis that is asked for; null when there is none. */
function wantedAxis(desk: Desk, paths: readonly Path[]): Axis | null {
  if (desk.habits.evenAbout === 'axis') return desk.art.axis;
  if (desk.habits.evenAbout === 'middle') return ownMirrorAxis(paths);
  return { kind: 'turn', ...ownCentre(paths), parts: desk.next.axisParts };
}

/** A mirror axis or a turn axis' parts as lines, for the ghost. */
function axisLines(desk: Desk, axis: Axis): Path[] {
  const ray = (angle: number, back: boolean): Path => {
    const to = { x: axis.x + Math.cos(angle), y: axis.y + Math.sin(angle) };
    const line = axisLine(desk, { from: axis, to });
    return back
      ? line
      : { ...line, anchors: [{ ...line.anchors[0]!, x: axis.x, y: axis.y }, line.anchors[1]!] };
  };
  if (axis.kind === 'mirror') return [ray(axis.angle, true)];
  return Array.from({ length: axis.parts }, (_, k) =>
    ray(-Math.PI / 2 + (2 * Math.PI * k) / axis.parts, false),
  );
}

/**
 * Offers the chosen shapes made exactly symmetric, with how far anchors go and where they go farthest. R lets one part lead,
 * then the other. Where the mean cannot be had, the offer begins with one part leading.
 */
export function offerSymmetric(desk: Desk): void {
  const shapes = shapesToEven(desk);
  const owners = shapes.flatMap((s) => s.paths.map(() => s.id));
  const paths = shapes.flatMap((s) => s.paths);
  if (paths.length === 0) return;
  const axis = wantedAxis(desk, paths);
  if (!axis)
    return desk.say(
      desk.habits.evenAbout === 'axis'
        ? 'No axis is set. Place one in Block in, or go by the drawing’s own middle.'
        : 'Fewer than three anchors have no middle line of their own. Nothing was changed.',
      'bad',
    );
  const offer = (lead: Lead): void => {
    const even = makeSymmetric(paths, axis, lead);
    const far = even.worst.distance;
    desk.makeOffer({
      text: `Symmetric again, ${WORDS[axis.kind][lead]}: anchors go ${(far * desk.looking.view.scale).toFixed(1)} px at most (${formatLength(far, desk.art.sheet.unit)})`,
      ghost: [...even.paths, ...axisLines(desk, axis)],
      ...(far > 0 ? { worst: even.worst.at } : {}),
      turn: () => offerFrom(NEXT[axis.kind][lead] ?? 'all'),
      label: 'Symmetric again',
      recipe: together(...even.paths.map((p, k) => setPath(owners[k]!, p))),
      after: { choice: { ...desk.choice, anchors: [], handle: null, segment: null } },
    });
  };
  const offerFrom = (first: Lead): void => {
    let refusal = '';
    // Whichever way it can be had, beginning with what was asked for.
    for (let lead: Lead | undefined = first; lead; lead = NEXT[axis.kind][lead])
      try {
        return offer(lead);
      } catch (error) {
        if (!(error instanceof MirrotError)) throw error;
        refusal = error.message;
      }
    if (first !== 'all') return offerFrom('all');
    desk.leaveOffer();
    desk.say(refusal, 'bad');
  };
  offerFrom('all');
}
