import {
  copiedShapes,
  EMPTY_BOX,
  findNode,
  findShape,
  isEmptyBox,
  layerOf,
  nodesBox,
  shapeBounds,
  shapeById,
  shapesIn,
  uniteBoxes,
  type Art,
  type Box,
  type Group,
  type Path,
  type Point,
  type Shape,
} from '@mirrot/core';
import type { Context, Live } from './changes';
import { chooseNodes, chosenNodes, findPath, NOTHING_CHOSEN, stillThere, type Choice } from './choice';
import { focusable, groupsAbove, shapesInReach, wholeOf, wholesInReach, type Whole } from './focus';

/** What is chosen, what is being drawn, and what receives the next path, colour or weight. */
export class Choosing {
  choice: Choice = $state.raw(NOTHING_CHOSEN);
  /** The path being drawn. */
  live: Live | null = $state.raw(null);
  /** The layer last used. */
  layer: string = $state('');
  /** The shape of the path that ended last, until the next press on the bed: it still receives colour. */
  justEnded: string | null = $state(null);
  #stays: string | null = $state(null);
  #focus: string | null = $state(null);
  /** The copies made last, and what they are of: made again, they are moved by as much. */
  copied: { readonly ids: readonly string[]; readonly of: readonly string[] } | null = $state.raw(null);
  /** What was hidden or locked when others were set apart, to be brought back. */
  apart: Readonly<Record<'hidden' | 'locked', readonly string[]>> = $state.raw({ hidden: [], locked: [] });
  /** The point picked to turn and scale about; null for one of the box's own nine. */
  turnCentre: Point | null = $state.raw(null);
  readonly #drawing: { readonly art: Art };

  constructor(drawing: { readonly art: Art }) {
    this.#drawing = drawing;
    this.keepLayer();
  }

  /** A shape of the document by id, or null. */
  shapeOf(id: string): Shape | null {
    return shapeById(this.#drawing.art, id);
  }

  choose(choice: Choice): void {
    this.choice = choice;
    const shape = choice.shapes.at(-1);
    const layer = shape ? layerOf(this.#drawing.art, shape) : null;
    if (layer) this.layer = layer.id;
  }

  /** What is looked at, to be looked at again. */
  get context(): Context {
    return { choice: this.choice, live: this.live };
  }
  /** Looks at this again, as far as it is still there. */
  restore({ choice, live }: Context): void {
    const { art } = this.#drawing;
    this.choice = stillThere(choice, art);
    this.live = live && findPath(findShape(art, live.shape), live.path) ? live : null;
  }

  /** The group that is worked in: what stands outside it is out of reach. Null for the whole drawing. */
  get focus(): Group | null {
    return focusable(this.#drawing.art, this.#focus);
  }
  /** Works in a group, or with null in the whole drawing. */
  focusOn(group: string | null): void {
    this.#focus = group;
    this.justEnded = null;
  }
  /** Leaves the group that is worked in for the one around it; the group left is chosen. False when none is worked in. */
  leaveFocus(): boolean {
    const { art } = this.#drawing;
    const { focus } = this;
    if (!focus) return false;
    this.focusOn(groupsAbove(art, focus.id).at(-1)?.id ?? null);
    this.choose(chooseNodes([focus]));
    return true;
  }
  /** Shapes in reach of the pointer and of commands on "all", bottom first. */
  readonly inReach: readonly Shape[] = $derived.by(() => shapesInReach(this.#drawing.art, this.focus));
  /** All that is chosen as one thing, bottom first. */
  get wholes(): readonly Whole[] {
    return wholesInReach(this.#drawing.art, this.focus);
  }
  /** The node a press on a shape is about: a group as a whole, or the shape where it was chosen by itself. */
  wholeOf(shape: string): string {
    const { choice } = this;
    const byItself =
      shape === this.live?.shape || (choice.nodes.length === 0 && choice.shapes.includes(shape));
    return byItself ? shape : wholeOf(this.#drawing.art, this.focus, shape);
  }

  /** The node that stays where others are put against it: one of several that are chosen; null for none. */
  get stays(): string | null {
    const nodes = chosenNodes(this.choice, this.#drawing.art);
    return nodes.length > 1 && nodes.includes(this.#stays ?? '') ? this.#stays : null;
  }
  set stays(node: string | null) {
    this.#stays = node;
  }
  /** Lets the chosen node that holds a shape stay, or lets it go again. */
  turnStays(shape: string): void {
    const { art } = this.#drawing;
    const node = chosenNodes(this.choice, art).find((id) => {
      const found = findNode(art, id)?.node;
      return found && shapesIn(found).some((s) => s.id === shape);
    });
    this.stays = node === this.stays ? null : (node ?? null);
  }

  get shapes(): Shape[] {
    return this.choice.shapes.flatMap((id) => this.shapeOf(id) ?? []);
  }
  get livePath(): Path | null {
    return this.live && findPath(this.shapeOf(this.live.shape), this.live.path);
  }
  /** Box of what is chosen; null when nothing is. */
  get box(): Box | null {
    const { art } = this.#drawing;
    const lines = this.shapes.map((s) => shapeBounds(s)).reduce(uniteBoxes, EMPTY_BOX);
    // Of groups that stand several times all copies count.
    const several = this.choice.nodes.length > 0 && copiedShapes(art).length > 0;
    const box = several ? uniteBoxes(lines, nodesBox(art, this.choice.nodes)) : lines;
    return isEmptyBox(box) ? null : box;
  }

  /** Shapes that a colour, weight or sample goes to; none for the next path. */
  get receivers(): string[] {
    if (this.choice.shapes.length > 0) return [...this.choice.shapes];
    if (this.live) return [this.live.shape];
    return this.justEnded && this.shapeOf(this.justEnded) ? [this.justEnded] : [];
  }
  get receivedShapes(): Shape[] {
    return this.receivers.flatMap((id) => this.shapeOf(id) ?? []);
  }
  /** The first shape that receives, or null. */
  get receivedShape(): Shape | null {
    return this.shapeOf(this.receivers[0] ?? '');
  }

  /** What new shapes go into: the group that is worked in, else the layer that is drawn on; null when none is open. */
  get drawingParent(): string | null {
    return this.focus?.id ?? this.drawingLayer;
  }
  /** The layer new shapes go on: the one last used if it is there and open, else the topmost open one. */
  get drawingLayer(): string | null {
    const open = this.#drawing.art.layers.filter((l) => l.shown && !l.locked);
    return (open.find((l) => l.id === this.layer) ?? open.at(-1))?.id ?? null;
  }
  /** Takes the topmost layer where the one last used has gone. */
  keepLayer(): void {
    const { layers } = this.#drawing.art;
    if (!layers.some((l) => l.id === this.layer)) this.layer = layers.at(-1)!.id;
  }
}
