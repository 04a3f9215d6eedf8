<script lang="ts">
  // Long because each mark is a few lines of one picture over the bed, and all share what is chosen and foreseen.
  import {
    apply,
    axisMaps,
    drawnData,
    findNode,
    haloOf,
    IDENTITY,
    isStraight,
    nodeBox,
    shapesIn,
    wholePaths,
    type Cubic,
    type Point,
  } from '@mirrot/core';
  import { type HandleRef } from '$lib/desk/choice';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { toBed, pointText } from '$lib/desk/view';
  import type { BedPointer } from './behaviour';
  import { currentFrame, frameCorners } from './box';
  import { fieldOf, handleGrip, nearEnds, visibleHandles } from './hit';
  import { anchorMark, handleMark } from './marks';
  import { reachedPath } from './reaching';
  import { discShown } from './sampling';
  import { liveHandles, shownPaths, type Foresight } from './foresight';

  let { desk, over, foresight }: { desk: Desk; over: BedPointer | null; foresight: Foresight } = $props();

  /** How much larger a mark is under the pointer. */
  const LARGER = 1.25;
  /** Marks are 16 px instead of 11 for a finger. */
  const size = $derived(over?.type === 'touch' ? 16 / 11 : 1);
  /** Anchors nearer to each other than this on screen share one mark, in bed pixels. */
  const CROWDED = 4;
  /** Ends of open paths show their ring when the pointer is this near, in bed pixels. */
  const ENDS_NEAR = 60;

  const view = $derived(desk.looking.view);
  const bed = (p: Point): Point => toBed(view, p);
  const cubicText = (c: Cubic): string => {
    const [a, b, d, e] = c.map(bed) as [Point, Point, Point, Point];
    return `M${pointText(a)}C${pointText(b)} ${pointText(d)} ${pointText(e)}`;
  };

  const paths = $derived(shownPaths(desk, foresight));

  interface Mark {
    readonly key: string;
    readonly d: string;
    readonly colour: string;
    readonly halo: string;
    readonly at: Point;
    readonly protected: boolean;
  }
  const anchors = $derived.by((): Mark[] => {
    const out: Mark[] = [];
    const { width, height } = desk.looking.bed;
    const chosenOn = new Set(desk.choice.anchors.map((a) => `${a.path} ${a.index}`));
    for (const { shape, path } of paths) {
      const ink = desk.picture.inkOf(shape);
      const taken = new Set<number>();
      path.anchors.forEach((a, index) => {
        const at = bed(a);
        if (at.x < -20 || at.y < -20 || at.x > width + 20 || at.y > height + 20) return;
        const pointed =
          foresight.kind === 'anchor' && foresight.ref.path === path.id && foresight.ref.index === index;
        const chosen = chosenOn.has(`${path.id} ${index}`);
        // Where they crowd, one stands for all within a few pixels.
        const cell = Math.round(at.x / CROWDED) * 65_536 + Math.round(at.y / CROWDED);
        if (taken.has(cell) && !chosen && !pointed) return;
        taken.add(cell);
        out.push({
          key: `${path.id} ${index}`,
          d: anchorMark(path, index, at, size * (pointed ? LARGER : 1)),
          colour: chosen ? 'var(--carrot)' : ink,
          halo: chosen ? haloOf('') : haloOf(ink),
          at,
          protected: a.protected ?? false,
        });
      });
    }
    return out;
  });

  const handles = $derived.by(() => {
    const refs = new Map<string, HandleRef>();
    const keep = (r: HandleRef): void => void refs.set(`${r.path} ${r.index} ${r.side}`, r);
    if (desk.looking.seen.ink) {
      liveHandles(desk).forEach(keep);
      if (!desk.live) for (const s of desk.chosenShapes) visibleHandles(s, desk.choice).forEach(keep);
    }
    return [...refs].flatMap(([key, ref]) => {
      const anchor = desk.shapeOf(ref.shape)?.paths.find((p) => p.id === ref.path)?.anchors[ref.index];
      const grip = anchor && handleGrip(anchor, ref.side, view.scale);
      return anchor && grip ? [{ key, ...handleMark(bed(anchor), bed(grip)) }] : [];
    });
  });

  /** Handles of the segment that a press would bend. */
  const bending = $derived.by(() => {
    if (foresight.kind !== 'segment' || isStraight(foresight.cubic)) return [];
    const [a, b, c, d] = foresight.cubic.map(bed) as [Point, Point, Point, Point];
    return [
      [a, b],
      [d, c],
    ].flatMap(([from, to]) =>
      Math.hypot(to!.x - from!.x, to!.y - from!.y) > 1 ? [handleMark(from!, to!)] : [],
    );
  });

  /** The first anchor of the path being drawn, once a click there would close it. */
  const closing = $derived(
    desk.live && (desk.livePath?.anchors.length ?? 0) > 1 ? bed(desk.livePath!.anchors[0]!) : null,
  );
  const ends = $derived(
    desk.step === 'block-in' && over
      ? nearEnds(fieldOf(desk, over), over.sheet, ENDS_NEAR / view.scale, desk.live?.path ?? null).map(bed)
      : [],
  );

  const outlines = $derived(
    desk.looking.seen.ink || desk.pointing.held.has('q') || desk.pointing.held.has('shift+q')
      ? []
      : desk.chosenShapes,
  );
  /** Shapes that are outlined one by one at most; more are shown by their box. */
  const MOST_OUTLINED = 200;
  /** What lights up because its row is pointed at, in sheet pixels. */
  const pointedAt = $derived.by((): string | null => {
    const id = desk.pointing.overInStack;
    const node = id && findNode(desk.art, id)?.node;
    if (!node) return null;
    const shapes = shapesIn(node);
    if (shapes.length <= MOST_OUTLINED) return shapes.map((s) => drawnData(wholePaths(s))).join('');
    const { x0, y0, x1, y1 } = nodeBox(desk.art, node.id);
    return `M${x0} ${y0}H${x1}V${y1}H${x0}Z`;
  });
  const frame = $derived(desk.pointing.task ? null : currentFrame(desk));
  const crop = $derived.by((): Point[] => {
    const { task } = desk.pointing;
    const { traced } = desk.picture;
    if (task?.kind !== 'crop' || !traced) return [];
    const { x0, y0, x1, y1 } = task.box;
    return [
      { x: x0, y: y0 },
      { x: x1, y: y0 },
      { x: x1, y: y1 },
      { x: x0, y: y1 },
    ].map((p) => bed(apply(traced.placement, p)));
  });
  const cropGrips = $derived(
    crop.flatMap((p, i) => [p, { x: (p.x + crop[(i + 1) % 4]!.x) / 2, y: (p.y + crop[(i + 1) % 4]!.y) / 2 }]),
  );
  const corners = $derived(frame ? frameCorners(frame).map(bed) : []);
  /** The segment a press would draw or bend; one that is drawn about an axis in all its parts. */
  const preview = $derived.by((): string | null => {
    const axis = foresight.kind === 'segment' ? undefined : live?.axis;
    const cubics = foresight.kind === 'segment' ? [foresight.cubic] : 'cubics' in foresight ? foresight.cubics : []; // prettier-ignore
    if (cubics.length === 0) return null;
    return (axis ? axisMaps(axis) : [IDENTITY])
      .flatMap((m) => cubics.map((c) => cubicText(c.map((p) => apply(m, p)) as unknown as Cubic)))
      .join('');
  });
  /** Marks of the anchors between the segments of a chain that a press would take. */
  const chained = $derived.by((): string[] => {
    const offer = foresight.kind === 'add' || foresight.kind === 'close' ? foresight.reached : null;
    if (!offer || offer.segments.length < 2 || !desk.livePath) return [];
    const { length } = desk.livePath.anchors;
    const path = reachedPath(desk.livePath, offer, foresight.kind === 'close');
    return offer.segments.slice(1).map((s, i) => anchorMark(path, length + i, bed(s.cubic[0]), size));
  });
  const live = $derived(desk.live && desk.shapeOf(desk.live.shape));
  const previewInk = $derived.by(() => {
    const id = foresight.kind === 'segment' ? foresight.shape : desk.live?.shape;
    const shape = id ? desk.shapeOf(id) : null;
    return shape ? desk.picture.inkOf(shape) : '#2340c7';
  });
  const disc = $derived(discShown(desk));
</script>

<svg class="marks" aria-hidden="true">
  {#each outlines as shape (shape.id)}
    <g transform="translate({view.tx} {view.ty}) scale({view.scale})" class="edge">
      <path d={drawnData(wholePaths(shape))} vector-effect="non-scaling-stroke" class="halo" />
      <path d={drawnData(wholePaths(shape))} vector-effect="non-scaling-stroke" />
    </g>
  {/each}

  {#if pointedAt}
    <g transform="translate({view.tx} {view.ty}) scale({view.scale})" class="edge">
      <path d={pointedAt} vector-effect="non-scaling-stroke" class="halo" />
      <path d={pointedAt} vector-effect="non-scaling-stroke" />
    </g>
  {/if}

  {#if preview}
    <path class="halo line" d={preview} style:stroke={haloOf(previewInk)} />
    <path class="line" class:lit={foresight.kind === 'segment'} d={preview} style:stroke={previewInk} />
  {/if}

  {#each bending as handle, i (i)}
    <path class="halo hair" d={handle.line} />
    <path class="halo" d={handle.bar} />
    <path class="hair" d={handle.line} style:stroke={previewInk} />
    <path d={handle.bar} style:stroke={previewInk} />
  {/each}
  {#each handles as handle (handle.key)}
    <path class="halo hair" d={handle.line} />
    <path class="halo" d={handle.bar} />
    <path class="hair chosen" d={handle.line} />
    <path class="chosen" d={handle.bar} />
  {/each}

  {#each anchors as mark (mark.key)}
    <path class="halo" d={mark.d} style:stroke={mark.halo} />
  {/each}
  {#each anchors as mark (mark.key)}
    <path d={mark.d} style:stroke={mark.colour} data-anchor={mark.key} />
  {/each}

  {#each anchors.filter((m) => m.protected) as mark (mark.key)}
    {@const d = `M${pointText({ x: mark.at.x + 7, y: mark.at.y - 12 })}h6v3a3 3 0 0 1 -6 0z`}
    <path class="halo" {d} style:stroke={mark.halo} />
    <path class="thin" {d} style:stroke={mark.colour} />
  {/each}

  {#each chained as d, i (i)}
    <path class="halo" {d} style:stroke={haloOf(previewInk)} />
    <path class="chained" {d} style:stroke={previewInk} />
  {/each}
  {#each ends as end (`${end.x} ${end.y}`)}
    <circle class="halo" cx={end.x} cy={end.y} r="7" style:stroke={haloOf(previewInk)} />
    <circle cx={end.x} cy={end.y} r="7" style:stroke={previewInk} />
  {/each}
  {#if closing}
    <circle class="halo" cx={closing.x} cy={closing.y} r="7" style:stroke={haloOf(previewInk)} />
    <circle
      cx={closing.x}
      cy={closing.y}
      r="7"
      style:stroke={previewInk}
      style:fill={foresight.kind === 'close' ? previewInk : null}
    />
  {/if}
  {#if foresight.kind === 'end'}
    {@const at = bed(foresight.at)}
    <circle cx={at.x} cy={at.y} r="7" style:stroke={previewInk} style:fill={previewInk} />
  {/if}
  {#if foresight.kind === 'add'}
    {@const at = bed(foresight.at)}
    <circle class="halo" cx={at.x} cy={at.y} r="2" style:stroke={haloOf(previewInk)} />
    <circle cx={at.x} cy={at.y} r="2" style:stroke={previewInk} />
  {/if}

  {#if crop.length === 4}
    <path
      class="shade"
      d="M0 0H{desk.looking.bed.width}V{desk.looking.bed.height}H0ZM{crop.map(pointText).join('L')}Z"
    />
    <path class="chosen thin" d="M{crop.map(pointText).join('L')}Z" />
    {#each cropGrips as g, i (i)}
      <circle class="halo" cx={g.x} cy={g.y} r="4" />
      <circle class="chosen" cx={g.x} cy={g.y} r="4" />
    {/each}
  {/if}
  {#if desk.pointing.rule}
    {@const a = bed(desk.pointing.rule.from)}
    {@const b = bed(desk.pointing.rule.to)}
    <path class="halo" d="M{pointText(a)}L{pointText(b)}" />
    <path class="chosen thin" d="M{pointText(a)}L{pointText(b)}" />
    <circle class="chosen thin" cx={a.x} cy={a.y} r="4" />
    <circle class="chosen thin" cx={b.x} cy={b.y} r="4" />
  {/if}
  {#if corners.length === 4}
    <path class="frame" d="M{corners.map(pointText).join('L')}Z" />
    {#each corners as c, i (i)}
      <path class="halo" d="M{pointText({ x: c.x - 5, y: c.y })}h10M{pointText({ x: c.x, y: c.y - 5 })}v10" />
      <path
        class="chosen"
        d="M{pointText({ x: c.x - 5, y: c.y })}h10M{pointText({ x: c.x, y: c.y - 5 })}v10"
      />
    {/each}
  {/if}

  {#if desk.choosing.turnCentre && desk.step === 'refine' && desk.choice.shapes.length > 0}
    {@const at = bed(desk.choosing.turnCentre)}
    {@const d = `M${pointText({ x: at.x - 9, y: at.y })}h5m8 0h5M${pointText({ x: at.x, y: at.y - 9 })}v5m0 8v5`}
    <path class="halo" {d} />
    <path class="chosen" {d} />
  {/if}
  {#if desk.pointing.box}
    {@const a = bed({ x: desk.pointing.box.x0, y: desk.pointing.box.y0 })}
    {@const b = bed({ x: desk.pointing.box.x1, y: desk.pointing.box.y1 })}
    <rect class="choosing" x={a.x} y={a.y} width={b.x - a.x} height={b.y - a.y} />
  {/if}
  {#if disc}
    {@const at = bed(disc.at)}
    <circle class="halo" cx={at.x} cy={at.y} r={disc.radius * view.scale} />
    <circle class="chosen thin" cx={at.x} cy={at.y} r={disc.radius * view.scale} />
  {/if}
</svg>

<style>
  .marks {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    fill: none;
    stroke-width: 2;
    stroke-linecap: round;
    stroke-linejoin: round;
    pointer-events: none;
  }
  .halo {
    stroke: var(--halo);
    stroke-width: 4.5;
  }
  .chosen {
    stroke: var(--carrot);
  }
  .hair {
    stroke-width: 1;
  }
  .halo.hair,
  .halo.line {
    stroke-width: 3.5;
  }
  .line {
    stroke-width: 1.5;
  }
  .lit {
    stroke-width: 3.5;
  }
  .thin {
    stroke-width: 1.5;
  }
  .edge path {
    stroke: var(--carrot);
    stroke-width: 1.5;
  }
  .edge path.halo {
    stroke: var(--halo);
    stroke-width: 3.5;
  }
  .frame {
    stroke: var(--carrot);
    stroke-width: 1;
    stroke-dasharray: 3 4;
  }
  .shade {
    fill: #22241f;
    fill-opacity: 0.45;
    fill-rule: evenodd;
    stroke: none;
  }
  .choosing {
    stroke: var(--plum);
    stroke-width: 1;
    fill: var(--plum);
    fill-opacity: 0.08;
  }
</style>
