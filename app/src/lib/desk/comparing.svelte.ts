import { DEFICIENCIES, type Art, type Box, type Deficiency, type Point } from '@mirrot/core';
import type { Step } from './steps';

/** A line across the sheet: the picture is seen on one side of it, the drawing on the other. */
export interface Wipe {
  /** A point of the line, sheet pixels. */
  readonly at: Point;
  /** Its direction, radians; the drawing lies to the right of it, seen along it with y down. */
  readonly angle: number;
}

/** The bed in two halves that move as one: the drawing in one, the picture or a kept copy in the other. */
export interface Beside {
  /** One beside the other, or one above the other. */
  readonly way: 'across' | 'down';
  /** The drawing lies in the first half. */
  readonly drawingFirst: boolean;
  /** What lies beside the drawing; null for the picture. */
  readonly copy: { readonly id: string; readonly name: string; readonly art: Art } | null;
}

/** Where drawing and picture differ, as a picture over the sheet. */
export interface DifferenceMap {
  readonly href: string;
  readonly box: Box;
  readonly mean: number;
  readonly beyond: number;
  readonly compared: number;
}

/** Eyes that the bed is seen with. */
export const EYES = ['all', 'grey', ...DEFICIENCIES] as const;
export type Eyes = 'all' | 'grey' | Deficiency;

/** What comparing asks of the desk it belongs to. */
export interface ComparingHost {
  readonly step: Step;
  readonly pointing: { readonly held: ReadonlySet<string> };
}

/** How picture and drawing are compared in Proof: by one way at a time, or as the Glass has it. */
export class Comparing {
  #wipe: Wipe | null = $state.raw(null);
  #beside: Beside | null = $state.raw(null);
  #difference = $state(false);
  /** The difference that was worked out last; null before the first time. */
  map: DifferenceMap | null = $state.raw(null);
  /** The drawing's lines alone, without fills and strokes. */
  lines = $state(false);
  eyes: Eyes = $state('all');
  readonly #host: ComparingHost;

  constructor(host: ComparingHost) {
    this.#host = host;
  }

  get wipe(): Wipe | null {
    return this.#wipe;
  }
  set wipe(wipe: Wipe | null) {
    if (wipe) this.#none();
    this.#wipe = wipe;
  }
  get beside(): Beside | null {
    return this.#beside;
  }
  set beside(beside: Beside | null) {
    if (beside) this.#none();
    this.#beside = beside;
  }
  get difference(): boolean {
    return this.#difference;
  }
  set difference(difference: boolean) {
    if (difference) this.#none();
    this.#difference = difference;
  }
  #none(): void {
    this.#wipe = null;
    this.#beside = null;
    this.#difference = false;
  }

  /** Proof is open, and nothing is held that shows the picture or the drawing alone. */
  get #seen(): boolean {
    const { step, pointing } = this.#host;
    return step === 'proof' && !pointing.held.has('q') && !pointing.held.has('shift+q');
  }
  /** The wipe, where it parts what is seen. */
  get wiped(): Wipe | null {
    return this.#seen ? this.#wipe : null;
  }
  /** The halves, while the bed has them: what is held shows both halves the same. */
  get halves(): Beside | null {
    return this.#host.step === 'proof' ? this.#beside : null;
  }
  /** The map, where it is seen in place of picture and drawing. */
  get mapped(): DifferenceMap | null {
    return this.#seen && this.#difference ? this.map : null;
  }
  /** The drawing is seen as lines. */
  get lined(): boolean {
    return this.#seen && this.lines;
  }
  /** The eyes that the bed is seen with now; null for all there are. */
  get seenWith(): Exclude<Eyes, 'all'> | null {
    return this.#host.step === 'proof' && this.eyes !== 'all' ? this.eyes : null;
  }
}
