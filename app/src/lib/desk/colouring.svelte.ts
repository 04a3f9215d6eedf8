import {
  hexOf,
  paletteOf,
  type Art,
  type BodyTone,
  type Colour,
  type Palette,
  type Shape,
} from '@mirrot/core';

export type Sampling = 'pixel' | 'disc';

/** How colours are taken and given. */
export class Colouring {
  sampling: Sampling | null = $state(null);
  /** Sheet pixels. */
  discRadius = $state(6);
  /** Whether colours go to the fill or to the stroke. */
  receiving: 'fill' | 'stroke' = $state('fill');
  /** What the one shape shows of the picture that Body tone was last asked of; null where it was none, or several. */
  tone: { readonly shape: Shape; readonly tone: BodyTone } | null = $state.raw(null);
  #nextFill: { readonly colour: Colour; readonly hex: string } | null = $state.raw(null);
  readonly #drawing: { readonly art: Art };

  constructor(drawing: { readonly art: Art }) {
    this.#drawing = drawing;
  }

  /** Colours of the chips by their ids. */
  get palette(): Palette {
    return paletteOf(this.#drawing.art.chips);
  }
  /** Fill the next path will get, or null for none. A chip that has gone leaves its colour. */
  get nextFill(): Colour | null {
    const next = this.#nextFill;
    if (!next) return null;
    const gone = 'chip' in next.colour && !this.palette.has(next.colour.chip);
    return gone ? { hex: next.hex } : next.colour;
  }
  set nextFill(colour: Colour | null) {
    this.#nextFill = colour && { colour, hex: hexOf(colour, this.palette) };
  }
}
