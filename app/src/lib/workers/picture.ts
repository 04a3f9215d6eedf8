import type { Box, LevelOffer, PictureColour, PlacedPicture, Raster, Symmetry } from '@mirrot/core';
import { starter } from './start';

/** What is wanted of a picture. */
export interface PictureWish {
  /** What it is for; a newer wish for the same stops the older. */
  readonly for: string;
  /** Address of the pixels, in whatever size. */
  readonly url: string;
  /** Longest side to work at, pixels; all of what the address gives when null. */
  readonly longest: number | null;
  /** Width of the picture itself, in which `square` is given. */
  readonly width: number;
  readonly square: PlacedPicture['square'];
  readonly view: PlacedPicture['view'];
  readonly tones: PlacedPicture['tones'];
}

/** A picture as it is to be shown, as a file, and the boundaries of its tone steps. */
export interface Shown {
  readonly blob: Blob;
  readonly bounds: readonly number[] | null;
}

/** Stand-ins for devices, to practise straightening with. */
export type Practice = 'scan' | 'photo';

/** What the picture worker does. */
export interface PictureWork {
  /** The picture straightened and seen by its view; null when a newer wish for the same came. */
  show(wish: PictureWish, progress?: (share: number) => void): Promise<Shown | null>;
  /** The straightened pixels, for sampling. */
  pixels(wish: PictureWish): Promise<Raster>;
  level(wish: PictureWish): Promise<LevelOffer | null>;
  /** The axis the picture is nearly symmetric about, and how many seen pixels one of its pixels is. */
  symmetry(wish: PictureWish): Promise<(Symmetry & { readonly step: number }) | null>;
  /** Colours that stand best for the picture, within a crop in seen pixels. */
  palette(wish: PictureWish, count: number, crop: Box | null): Promise<PictureColour[]>;
  /** A picture as a stand-in for a scanner or a phone takes it, as a JPEG file. */
  practise(url: string, how: Practice, seed: number): Promise<Blob>;
  stop(id: string): void;
}

/** The one worker for pictures. */
export const pictureWorker = starter<PictureWork>(
  () => new Worker(new URL('./picture.worker.ts', import.meta.url), { type: 'module' }),
);

export { proxy } from 'comlink';
