<script lang="ts">
  import { cubicPoint, cubicTangent, meantSegments, segmentCubic, unit, toDegrees } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { toBed } from '$lib/desk/view';
  import { entryOnBed, whiskersOf } from './whiskers';

  // Drift of what is chosen, as whiskers on the line.
  let { desk }: { desk: Desk } = $props();

  const shown = $derived(
    desk.step === 'refine' &&
      desk.looking.seen.ink &&
      desk.picture.driftSettings &&
      desk.habits.whiskers &&
      !desk.offer
      ? desk.choice.shapes.flatMap((id) => desk.picture.drifts.of(id) ?? [])
      : [],
  );
  const whiskers = $derived(
    shown.flatMap((s) =>
      s.parts.map((part) => ({
        key: part.path.id,
        ...whiskersOf(
          part,
          s.step,
          desk.looking.view,
          desk.habits.driftWithin,
          desk.looking.bed.width,
          desk.looking.bed.height,
        ),
      })),
    ),
  );
  /** A pennant beside what is meant so: on the middle of a segment, or of the first one of a shape. */
  const FOOT = 6;
  const POLE = 15;
  const pennants = $derived(
    desk.step !== 'refine' || !desk.looking.seen.ink
      ? []
      : desk.chosenShapes.flatMap((shape) =>
          shape.paths.flatMap((path, k) => {
            const segments = shape.meant
              ? k === 0 && path.anchors.length > 1
                ? [0]
                : []
              : [...meantSegments(path)];
            return segments.map((s) => {
              const c = segmentCubic(path, s);
              const way = unit(cubicTangent(c, 0.5)) ?? { x: 1, y: 0 };
              const at = toBed(desk.looking.view, cubicPoint(c, 0.5));
              return {
                key: `${path.id} ${s}`,
                x: at.x,
                y: at.y,
                turn: toDegrees(Math.atan2(way.y, way.x)),
              };
            });
          }),
        ),
  );
  const pointed = $derived.by(() => {
    const { driftAt } = desk.picture;
    const shape = driftAt && desk.picture.drifts.of(driftAt.shape);
    const part = driftAt && shape ? shape.parts[driftAt.part] : null;
    if (!driftAt || !shape || !part || driftAt.entry >= part.drift.value.length) return null;
    return entryOnBed(part, shape.step, driftAt.entry, desk.looking.view);
  });
</script>

<svg class="whiskers" aria-hidden="true">
  {#each whiskers as w (w.key)}
    {#if !desk.pointing.pressing}<path class="halo" d={w.beyond} />{/if}
    <path class="none" d={w.none} />
    <path class="covered" d={w.covered} />
    <path class="within" d={w.within} />
    <path class="beyond" d={w.beyond} />
  {/each}
  {#each pennants as p (p.key)}
    {@const d = `M0 ${-FOOT}V${-FOOT - POLE}L9 ${-FOOT - POLE + 4.5}L0 ${-FOOT - POLE + 9}`}
    <g transform="translate({p.x} {p.y}) rotate({p.turn})">
      <path class="halo" {d} />
      <path class="pennant" {d} />
    </g>
  {/each}
  {#if pointed}
    <circle class="halo" cx={pointed.at.x} cy={pointed.at.y} r="10" />
    <circle class="pointed" cx={pointed.at.x} cy={pointed.at.y} r="10" />
  {/if}
</svg>

<style>
  .whiskers {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    fill: none;
    stroke-linecap: round;
    pointer-events: none;
  }
  .halo {
    stroke: var(--halo);
    stroke-width: 3;
    stroke-opacity: 0.8;
  }
  .within {
    stroke: var(--plum);
    stroke-width: 1;
  }
  .beyond {
    stroke: var(--brick);
    stroke-width: 1.4;
  }
  .covered {
    stroke: var(--quiet);
    stroke-width: 1;
  }
  .none {
    stroke: var(--brick);
    stroke-width: 3;
  }
  .pennant {
    stroke: var(--plum);
    stroke-width: 1.75;
    stroke-linejoin: round;
    fill: var(--plum);
    fill-opacity: 0.25;
  }
  .pointed {
    stroke: var(--plum);
    stroke-width: 2;
  }
</style>
