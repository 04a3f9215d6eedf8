<script lang="ts">
  // Long because each aid is a few lines of one picture over the bed, and all read the same view.
  import {
    findNode,
    shapesIn,
    drawnData,
    drawnTwice,
    shapesOf,
    axisMaps,
    apply,
    wholePaths,
    type Axis,
    type Point,
    type SnapLine,
    cubicCurvature,
    cubicPoint,
    cubicTangent,
    pathCubics,
    segmentIsLine,
    unit,
    toDegrees,
  } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { toBed, pointText } from '$lib/desk/view';
  import Beside from './Beside.svelte';
  import { formInHand, radiusGrips } from './forms';
  import { measureText } from './measuring';
  import type { Foresight } from './foresight';

  // Lines that help and are no part of the drawing: grid, guides, axes, what a point snaps to, offers, the crosshair.
  let { desk, foresight }: { desk: Desk; foresight: Foresight } = $props();

  const view = $derived(desk.looking.view);
  const bed = (p: Point): Point => toBed(view, p);
  const shaping = $derived(desk.step === 'block-in' || desk.step === 'refine');

  /** An endless line through a point of the sheet, as far as the bed shows it. */
  function across(at: Point, angle: number): string {
    const reach = desk.looking.bed.width + desk.looking.bed.height;
    const p = bed(at);
    // From the point nearest the bed's middle, so that far lines are drawn whole.
    const u = { x: Math.cos(angle), y: Math.sin(angle) };
    const k = (desk.looking.bed.width / 2 - p.x) * u.x + (desk.looking.bed.height / 2 - p.y) * u.y;
    return `M${pointText({ x: p.x + u.x * (k - reach), y: p.y + u.y * (k - reach) })}L${pointText({ x: p.x + u.x * (k + reach), y: p.y + u.y * (k + reach) })}`;
  }

  /** Grid lines on the sheet; where they would stand nearer than six screen pixels, every tenth or hundredth. */
  const grid = $derived.by((): string | null => {
    const { shown, step } = desk.art.grid;
    if (!shown || desk.pointing.held.has('q')) return null;
    let apart = step;
    while (apart * view.scale < 6) apart *= 10;
    const { width, height } = desk.art.sheet;
    const low = { x: -view.tx / view.scale, y: -view.ty / view.scale };
    const high = {
      x: low.x + desk.looking.bed.width / view.scale,
      y: low.y + desk.looking.bed.height / view.scale,
    };
    const a = bed({ x: 0, y: 0 });
    const b = bed({ x: width, y: height });
    let d = '';
    for (let x = Math.ceil(Math.max(0, low.x) / apart) * apart; x <= Math.min(width, high.x); x += apart)
      d += `M${(x * view.scale + view.tx).toFixed(1)} ${a.y.toFixed(1)}V${b.y.toFixed(1)}`;
    for (let y = Math.ceil(Math.max(0, low.y) / apart) * apart; y <= Math.min(height, high.y); y += apart)
      d += `M${a.x.toFixed(1)} ${(y * view.scale + view.ty).toFixed(1)}H${b.x.toFixed(1)}`;
    return d;
  });
  const guides = $derived(
    desk.art.guides.lines.map((g) => ({
      id: g.id,
      d: across(g, g.angle),
      lit: foresight.kind === 'guide' && foresight.id === g.id,
    })),
  );

  function axisData(axis: Axis): string {
    if (axis.kind === 'mirror') return across(axis, axis.angle);
    const c = bed(axis);
    const reach = desk.looking.bed.width + desk.looking.bed.height;
    return axisMaps(axis)
      .map((m) => {
        const end = bed(apply(m, { x: axis.x, y: axis.y - reach / view.scale }));
        return `M${pointText(c)}L${pointText(end)}`;
      })
      .join('');
  }
  const axes = $derived.by((): string[] => {
    if (!shaping) return [];
    const shown = new Map<string, Axis>();
    const keep = (axis: Axis | null | undefined): void =>
      void (axis && shown.set(JSON.stringify(axis), axis));
    keep(desk.art.axis);
    for (const shape of desk.choosing.receivedShapes) keep(shape.axis);
    return [...shown.values()].map(axisData);
  });

  /** A line that is measured, the edges it crosses as bars across it. */
  const measured = $derived.by(() => {
    const { task } = desk.pointing;
    if (task?.kind !== 'measure' || !task.line) return null;
    const { line, crossed } = task;
    const [a, b] = [bed(line.from), bed(line.to)];
    const long = Math.hypot(b.x - a.x, b.y - a.y) || 1;
    const u = { x: (b.x - a.x) / long, y: (b.y - a.y) / long };
    const bar = (share: number, half: number): string => {
      const p = { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) };
      return `M${pointText({ x: p.x - half * u.y, y: p.y + half * u.x })}L${pointText({ x: p.x + half * u.y, y: p.y - half * u.x })}`;
    };
    const ends = `M${pointText(a)}L${pointText(b)}${bar(0, 6)}${bar(1, 6)}`;
    const between: readonly number[] = crossed?.between ?? [];
    const edges = (crossed?.shares ?? []).map((s, i) => bar(s, between.includes(i) ? 9 : 4)).join('');
    return { line, ends, edges, text: measureText(desk, task) };
  });
  const taken = $derived(desk.pointing.snapTarget ?? ('snap' in foresight ? foresight.snap : null));
  const lineData = (line: SnapLine): string => {
    if (line.radius === undefined) return across(line.at, Math.atan2(line.along.y, line.along.x));
    const c = bed(line.at);
    const r = line.radius * view.scale;
    return `M${pointText({ x: c.x - r, y: c.y })}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;
  };
  /** Bed pixels that words beside the pointer may need. */
  const ROOM_BESIDE = 300;
  const words = $derived.by((): { at: Point; text: string } | null => {
    if (measured) return { at: bed(measured.line.to), text: measured.text };
    if (desk.pointing.pointerNote)
      return { at: bed(desk.pointing.pointerNote.at), text: desk.pointing.pointerNote.text };
    return taken ? { at: bed(taken.at), text: taken.why } : null;
  });
  const offered = $derived(
    desk.offer?.ghost && !desk.pointing.held.has('q') ? drawnData(desk.offer.ghost) : null,
  );
  /** Another state of the drawing, or another hand's: as thin as is seen on any ground, so that the edge beneath is not hidden. */
  const beside = $derived(
    desk.looking.ghost && !offered && !desk.pointing.held.has('q') ? drawnData(desk.looking.ghost) : null,
  );
  const roundings = $derived(desk.pointing.pressing ? [] : radiusGrips(desk).map(bed));

  /** Where a pen would draw what is there already. */
  const twice = $derived.by((): Point[] => {
    if (!desk.habits.pen || !shaping) return [];
    const id = desk.live?.shape ?? desk.choosing.justEnded ?? desk.choice.shapes[0];
    const shape = id ? desk.shapeOf(id) : null;
    if (!shape) return [];
    const others = shapesOf(desk.art).flatMap((p) =>
      p.shown && p.shape.id !== shape.id ? wholePaths(p.shape) : [],
    );
    return wholePaths(shape).flatMap((p) =>
      drawnTwice(p, others, desk.habits.penWidth).map((s) => bed(s.at)),
    );
  });
  /** Teeth of the curvature comb: screen pixels for a bend of one in a screen pixel's radius, and the longest. */
  const TEETH = 2400;
  const LONGEST = 70;
  const EVERY = 16;
  /** Where the chosen paths bend one way and the other, as teeth on the outer side. */
  const comb = $derived.by((): string => {
    if (!desk.habits.comb || desk.step !== 'refine' || desk.choice.level !== 'path') return '';
    let d = '';
    for (const path of desk.chosenShapes.flatMap((s) => s.paths))
      pathCubics(path).forEach((c, i) => {
        if (segmentIsLine(path, i)) return;
        const tips: Point[] = [];
        for (let k = 0; k <= EVERY; k++) {
          const t = k / EVERY;
          const bend = cubicCurvature(c, t) / view.scale;
          const u = unit(cubicTangent(c, t));
          if (!u) continue;
          const long = Math.max(-LONGEST, Math.min(LONGEST, bend * TEETH));
          const foot = bed(cubicPoint(c, t));
          const tip = { x: foot.x + u.y * long, y: foot.y - u.x * long };
          d += `M${pointText(foot)}L${pointText(tip)}`;
          tips.push(tip);
        }
        d += `M${tips.map(pointText).join('L')}`;
      });
    return d;
  });
  /** Anchors that an offer would take out; without one, those of the chosen paths that could go. */
  const spare = $derived.by((): readonly Point[] => {
    if (desk.offer) return desk.offer.spare ?? [];
    if (
      desk.step !== 'refine' ||
      desk.choice.level !== 'path' ||
      !desk.habits.spareMarks ||
      desk.pointing.pressing
    )
      return [];
    return desk.chosenShapes.flatMap((shape) => {
      const cost = desk.picture.drifts.economyOf(shape.id);
      return cost?.shape === shape
        ? cost.spare.flatMap((s) => shape.paths.find((p) => p.id === s.path)?.anchors[s.index] ?? [])
        : [];
    });
  });
  /** Outlines of the one that stays. */
  const stays = $derived.by(() => {
    const node = desk.choosing.stays && findNode(desk.art, desk.choosing.stays)?.node;
    return node ? drawnData(shapesIn(node).flatMap((shape) => wholePaths(shape))) : null;
  });
  const cross = $derived(desk.pointing.cross && bed(desk.pointing.cross));
</script>

<svg class="aids" aria-hidden="true">
  {#if grid}<path class="grid" d={grid} style:stroke={desk.art.grid.hex} />{/if}
  {#each guides as g (g.id)}
    <path class="guide" class:lit={g.lit} d={g.d} />
  {/each}
  {#each axes as d (d)}
    <path class="axis" {d} />
  {/each}
  {#if measured}
    <path class="halo" d={measured.ends + measured.edges} />
    <path class="measure" d={measured.ends} />
    <path class="edge" d={measured.edges} />
  {/if}
  {#if desk.pointing.pivot}
    {@const at = bed(desk.pointing.pivot.at)}
    <circle class="guide" cx={at.x} cy={at.y} r="5" />
  {/if}
  {#each taken?.lines ?? [] as line (line.why)}
    <path class="faint" d={lineData(line)} />
  {/each}
  {#if offered ?? beside}
    <g transform="translate({view.tx} {view.ty}) scale({view.scale})">
      <path class="halo" class:beside d={offered ?? beside} vector-effect="non-scaling-stroke" />
      <path class="ghost" class:beside d={offered ?? beside} vector-effect="non-scaling-stroke" />
    </g>
  {/if}
  {#if taken}
    {@const at = bed(taken.at)}
    <path
      class="halo"
      d="M{pointText({ x: at.x - 6, y: at.y })}h3m6 0h3M{pointText({ x: at.x, y: at.y - 6 })}v3m0 6v3"
    />
    <path
      class="took"
      d="M{pointText({ x: at.x - 6, y: at.y })}h3m6 0h3M{pointText({ x: at.x, y: at.y - 6 })}v3m0 6v3"
    />
  {/if}
  {#each roundings as at, i (i)}
    {@const turn = toDegrees(formInHand(desk)?.form.angle ?? 0) + 90 * i}
    {@const pointed =
      foresight.kind === 'radius' && Math.hypot(bed(foresight.at).x - at.x, bed(foresight.at).y - at.y) < 1}
    <g transform="translate({at.x} {at.y}) rotate({turn}) scale({pointed ? 1.25 : 1})">
      <path class="halo" d="M-5 4A9 9 0 0 1 4 -5" />
      <path class="rounding" d="M-5 4A9 9 0 0 1 4 -5" />
    </g>
  {/each}
  {#each twice as at (`${at.x} ${at.y}`)}
    <circle class="halo" cx={at.x} cy={at.y} r="13" />
    <circle class="warning" cx={at.x} cy={at.y} r="13" />
  {/each}
  {#if !desk.pointing.held.has('q')}
    {#each spare as p, i (i)}
      {@const at = bed(p)}
      <g transform="translate({at.x} {at.y})">
        <circle class="halo" r="5" />
        <path class="spare" d="M-5 0a5 5 0 1 0 10 0a5 5 0 1 0 -10 0M-2.5 0h5" />
      </g>
    {/each}
  {/if}
  {#if stays}
    <g transform="translate({view.tx} {view.ty}) scale({view.scale})">
      <path class="stays" d={stays} vector-effect="non-scaling-stroke" />
    </g>
  {/if}
  {#if desk.offer?.worst && !desk.pointing.held.has('q')}
    {@const at = bed(desk.offer.worst)}
    <circle class="warning" cx={at.x} cy={at.y} r="11" />
  {/if}
  {#if comb}<path class="comb" d={comb} />{/if}
  {#if cross}
    <path
      class="halo"
      d="M{pointText({ x: cross.x - 22, y: cross.y })}h17m10 0h17M{pointText({
        x: cross.x,
        y: cross.y - 22,
      })}v17m0 10v17"
    />
    <path
      class="cross"
      d="M{pointText({ x: cross.x - 22, y: cross.y })}h17m10 0h17M{pointText({
        x: cross.x,
        y: cross.y - 22,
      })}v17m0 10v17"
    />
  {/if}
</svg>
{#each twice as at (`${at.x} ${at.y}`)}
  <Beside x={at.x + 18} y={at.y - 9} text="already drawn here" tone="bad" spoken />
{/each}
{#if words}
  {@const left = words.at.x > desk.looking.bed.width - ROOM_BESIDE}
  <Beside x={words.at.x + (left ? -14 : 14)} y={words.at.y + 16} text={words.text} {left} />
{/if}

<style>
  .aids {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    fill: none;
    stroke-width: 1.5;
    stroke-linecap: round;
    pointer-events: none;
  }
  .grid {
    stroke-width: 1;
    stroke-opacity: 0.28;
    stroke-linecap: butt;
  }
  .halo {
    stroke: var(--halo);
    stroke-width: 4;
  }
  .guide {
    stroke: var(--plum);
    stroke-width: 1;
  }
  .guide.lit {
    stroke-width: 2.5;
  }
  .axis {
    stroke: var(--leaf);
    stroke-width: 1.25;
    stroke-dasharray: 10 4 2 4;
  }
  .faint {
    stroke: var(--leaf);
    stroke-width: 1;
    stroke-dasharray: 1 4;
  }
  .ghost {
    stroke: var(--carrot);
    stroke-width: 2;
    stroke-dasharray: 7 4;
  }
  .halo.beside {
    stroke-width: 1.5;
  }
  /* On the picture, whatever the theme: plum as it is in light. */
  .ghost.beside {
    stroke: #6a3fa0;
    stroke-width: 1.5;
    stroke-dasharray: 4;
  }
  .stays {
    stroke: var(--carrot);
    stroke-width: 4;
  }
  .took {
    stroke: var(--leaf);
    stroke-width: 2;
  }
  .rounding,
  .cross {
    stroke: var(--carrot);
  }
  .rounding {
    stroke-width: 2;
  }
  .measure {
    stroke: var(--carrot);
  }
  .edge {
    stroke: var(--plum);
    stroke-width: 2;
  }
  .spare {
    stroke: var(--carrot);
  }
  .comb {
    stroke: var(--plum);
    stroke-width: 1;
  }
  .warning {
    stroke: var(--brick);
    stroke-width: 2;
  }
</style>
