import {
  layerOf,
  meanScale,
  tracedPicture,
  type Art,
  type PlacedPicture,
  type Point,
  type Shape,
} from '@mirrot/core';
import { createDrifts, type Drifts, type DriftSettings } from './drifts.svelte';
import type { Habits } from './habits.svelte';
import { createInks, type Inks } from './inks.svelte';
import type { Progress, ProgressPlace } from './progress';
import { pixelsKey } from './rasters';
import { createReaching, type Reaching } from './reaching.svelte';
import { createSeeing, type Seeing } from './seeing.svelte';
import type { Rule } from './task';
import type { View } from './view';

/** What the picture's side of the desk asks of the desk. */
export interface PictureHost {
  readonly art: Art;
  readonly habits: Habits;
  readonly looking: { readonly view: View };
  readonly pointing: { readonly pressing: boolean };
  say(text: string, tone: 'bad'): void;
}

/** Marks along a path stand no nearer than this while it is dragged, screen pixels. */
const MARKS_APART_PX = 4;

/** How far to either side of a path the edge is looked for, picture pixels. */
const REACH_PX = { least: 4, most: 24 };

/** While a press lasts, drift is found at least at every so many pixels of the raster. */
const SPARSEST_PX = 6;

/** The picture that is traced: how it is seen, the ink against it, the drift from it, the next segment on its edge. */
export class TracedPicture implements ProgressPlace {
  /** Pictures being straightened or seen by a view. */
  progress: Progress | null = $state.raw(null);
  readonly seeing: Seeing;
  readonly inks: Inks = createInks();
  readonly drifts: Drifts;
  readonly reaching: Reaching = createReaching();
  /** A place along a path that the chart points at, or that the pointer is near: the shape, the path, the entry. */
  driftAt: { readonly shape: string; readonly part: number; readonly entry: number } | null =
    $state.raw(null);
  /** Spots of the sheet that the walk along the worst drift has been to. */
  visitedSpots: readonly Point[] = [];

  /** The share of the picture that no shape covers; null while that is not known. */
  bare: number | null = $state(null);
  /** A line drawn over a known length, waiting to be told how long it is. */
  knownLength: Rule | null = $state.raw(null);
  /** Where the origin goes: the sheet's centre or its top left corner. */
  originTo: 'centre' | 'corner' = $state('centre');
  /** What was traced on a picture goes along when it is moved. */
  follow = $state(true);
  readonly #host: PictureHost;

  constructor(host: PictureHost) {
    this.#host = host;
    this.drifts = createDrifts((text) => host.say(text, 'bad'));
    this.seeing = createSeeing(this);
  }

  say(text: string, tone: 'bad'): void {
    this.#host.say(text, tone);
  }

  get traced(): PlacedPicture | null {
    return tracedPicture(this.#host.art);
  }

  /** The ink a shape's lines are shown in. */
  inkOf(shape: Shape): string {
    return this.inks.of(shape, layerOf(this.#host.art, shape.id)?.ink ?? null);
  }

  /** How drift is measured now; null while there is no picture to measure by. */
  get driftSettings(): DriftSettings | null {
    const { raster } = this.inks;
    const picture = this.traced;
    if (!raster || !picture || raster.key !== pixelsKey(picture) || !picture.shown) return null;
    const { habits, looking, pointing } = this.#host;
    const screenScale = looking.view.scale * meanScale(picture.placement);
    // By steps of half as much again, so that a hair of zoom measures nothing anew.
    const stepped = 2 ** (Math.round(2 * Math.log2(habits.driftReach / screenScale)) / 2);
    const reach = Math.min(REACH_PX.most, Math.max(REACH_PX.least, stepped));
    const { driftWithin: within, driftDetail: detail } = habits;
    // While something is pressed, as many places as marks can stand at: the rest when it is let go.
    const apart = MARKS_APART_PX / (screenScale * raster.step);
    const spacing = pointing.pressing ? Math.max(1, Math.min(SPARSEST_PX, apart)) : 1;
    return {
      raster,
      picture,
      reach,
      within,
      detail,
      spacing,
      coveredToo: habits.driftCovered,
      light: habits.driftLight,
    };
  }
}
