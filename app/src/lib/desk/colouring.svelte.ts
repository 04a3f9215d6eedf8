import {
  hexOf,
  paletteOf,
  type Art,
  type BodyTone,
  type Colour,
  type Palette,
  type PictureColour,
  type Shape,
} from '@mirrot/core';

export type Sampling = 'pixel' | 'disc';

/** How colours are taken and given. */
export class Colouring {
  sampling: Sampling | null = $state(null);
  /** Presses fill one shape after another with the fill of the next path. */
  brush = $state(false);
  /** Picture pixels. */
  discRadius = $state(6);
  /** Whether colours go to the fill or to the stroke. */
  receiving: 'fill' | 'stroke' = $state('fill');
  /** The stop of a gradient that colours go to, by its place in the list. */
  stop = $state(0);
  /** What the one shape shows of the picture that Body tone was last asked of; null where it was none, or several. */
  tone: { readonly shape: Shape; readonly tone: BodyTone } | null = $state.raw(null);
  /** Shapes that show other colours of the picture now than when their body tone was taken. */
  stale: readonly string[] = $state.raw([]);
  /** Colours found in the picture, shown before they become chips. */
  found: readonly PictureColour[] | null = $state.raw(null);
  /** The chip whose name, role and colour are in the panel; null for none. */
  chip: string | null = $state(null);
  #nextFill: { readonly colour: Colour; readonly hex: string } | null = $state.raw(null);
  /** What the next path got before it was put to none. */
  #lastFill: Colour | null = $state.raw(null);
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
  /** Puts the next path's fill to none, or back to what it was. */
  turnNextFill(): void {
    const { nextFill } = this;
    const [chip] = this.#drawing.art.chips;
    if (nextFill) this.#lastFill = nextFill;
    this.nextFill = nextFill ? null : (this.#lastFill ?? (chip ? { chip: chip.id } : null));
  }
}
