<script lang="ts">
  import { cubicPoint, cubicTangent, unit, type Point } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { toBed, toSheet, pointText } from '$lib/desk/view';
  import Beside from './Beside.svelte';
  import { tickedAt } from './reaching';
  import type { Foresight } from './foresight';

  // What Reach offers besides the segments themselves: how far one segment can hold the edge, its drift, the turns ahead.
  let { desk, foresight }: { desk: Desk; foresight: Foresight } = $props();

  /** Half the length of the tick, and the gap it leaves for the contour; bed pixels. */
  const HALF = 11;
  const GAP = 3;
  /** How far beside the pointer the figures stand. */
  const BESIDE = 22;

  const bed = (p: Point): Point => toBed(desk.looking.view, p);
  const reached = $derived(
    (foresight.kind === 'add' || foresight.kind === 'close') && foresight.reached ? foresight.reached : null,
  );
  /** Where no segment is offered any more, the tick still says how far one holds. */
  const ticked = $derived.by(() => {
    if (reached || foresight.kind !== 'add' || !desk.pointing.pointerAt) return reached;
    return tickedAt(desk, { sheet: toSheet(desk.looking.view, desk.pointing.pointerAt) }, desk.livePath);
  });
  /** A bar across the edge with the contour left clear. */
  const tick = $derived.by((): string | null => {
    // Where a chain is offered its first anchor says so.
    const farthest = ticked && ticked.segments.length < 2 ? ticked.farthest : null;
    const along = farthest && unit(cubicTangent(farthest, 1));
    if (!farthest || !along) return null;
    const p = bed(farthest[3]);
    const q = (k: number): string => pointText({ x: p.x - k * along.y, y: p.y + k * along.x });
    return `M${q(-HALF)}L${q(-GAP)}M${q(GAP)}L${q(HALF)}`;
  });
  const hints = $derived(desk.habits.hints && reached ? reached.hints.map(bed) : []);
  /** Figures stand on the side the segment bends to, where the edge is not. */
  const figures = $derived.by(() => {
    const last = reached?.segments.at(-1);
    if (!reached) return null;
    if (!last) {
      // Where a path begins on a thin stroke, what of it that would follow.
      if (!reached.onStroke) return null;
      const at = bed(reached.at);
      const which = reached.follow === 'middle' ? 'middle of the stroke' : 'edge of the stroke';
      return { x: at.x + BESIDE, y: at.y - 10, left: false, text: which, tone: 'plain' as const };
    }
    const [a, , , d] = last.cubic.map(bed) as [Point, Point, Point, Point];
    const middle = bed(cubicPoint(last.cubic, 0.5));
    const chord = unit({ x: d.x - a.x, y: d.y - a.y }) ?? { x: 1, y: 0 };
    const bulge = (middle.x - a.x) * chord.y - (middle.y - a.y) * chord.x;
    const side = bulge > 0 ? { x: chord.y, y: -chord.x } : { x: -chord.y, y: chord.x };
    const { mean, worst, holds, segments } = reached;
    const follows = reached.follow === 'middle' && !desk.habits.pen ? 'middle: ' : '';
    const one = Number.isFinite(worst) ? `${mean.toFixed(1)} px, worst ${worst.toFixed(1)}` : 'off the edge';
    return {
      x: d.x + BESIDE * side.x,
      y: d.y + BESIDE * side.y - 10,
      left: side.x < 0,
      text: follows + (segments.length > 1 ? `${segments.length} segments, ${mean.toFixed(1)} px` : one),
      tone: holds ? ('good' as const) : ('bad' as const),
    };
  });
</script>

<svg class="reach" aria-hidden="true">
  {#each hints as at, i (i)}
    <circle class="halo" cx={at.x} cy={at.y} r="4.5" />
    <circle class="turn" cx={at.x} cy={at.y} r="4.5" />
  {/each}
  {#if tick}
    <path class="halo" d={tick} />
    <path class="tick" d={tick} />
  {/if}
</svg>
{#if figures}
  <Beside {...figures} />
{/if}

<style>
  .reach {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    fill: none;
    pointer-events: none;
  }
  .halo {
    stroke: var(--halo);
    stroke-width: 5;
    stroke-linecap: round;
  }
  .tick {
    stroke: var(--carrot);
    stroke-width: 2.5;
    stroke-linecap: round;
  }
  .turn {
    stroke: var(--plum);
    stroke-width: 1.5;
  }
</style>
