// A thread of its own: proves a drawing, which takes a second or two for thousands of shapes.
import { parentPort, workerData } from 'node:worker_threads';
import { areaByColour, drawingFigures, findings, TOLERANCES, type Art, type ColourShare, type Finding } from '@mirrot/core'; // prettier-ignore

export interface ProofWork {
  readonly art: Art;
  readonly use: keyof typeof TOLERANCES;
}

/** What is told of a drawing: figures, areas by colour, and what it may have wrong. */
export interface Proved {
  readonly shapes: number;
  readonly open: number;
  readonly closed: number;
  readonly anchors: number;
  readonly colours: number;
  /** Sheet pixels. */
  readonly length: number;
  readonly areas: readonly ColourShare[];
  readonly findings: readonly Finding[];
}

const { art, use } = workerData as ProofWork;
const { shapes, open, closed, anchors, colours, length } = drawingFigures(art);
const proved: Proved = {
  shapes,
  open,
  closed,
  anchors,
  colours: colours.length,
  length,
  areas: areaByColour(art),
  findings: findings(art, TOLERANCES[use]),
};
parentPort!.postMessage(proved);
