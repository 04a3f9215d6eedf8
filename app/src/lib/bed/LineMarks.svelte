<script lang="ts">
  import { drawnData, hexOf, type LinePiece, type Point } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { pointText, toBed } from '$lib/desk/view';
  import { pourFill } from '$lib/edits/pouring';
  import type { BedPointer } from './behaviour';
  import { fetchFollowing } from '$lib/desk/following';
  import { fetchLineGrips } from './line-grips';
  import { pieceUnder } from './weed';

  // What Pour would fill and Weed would take: the area under the pointer, gaps that are bridged, pieces under the swipe.
  let { desk, over }: { desk: Desk; over: BedPointer | null } = $props();
  void fetchLineGrips().catch(() => {});
  void fetchFollowing().catch(() => {});
  const view = $derived(desk.looking.view);
  const task = $derived(desk.pointing.task?.kind);
  const resting = $derived(over !== null && !desk.pointing.pressing);
  const enclosed = $derived(desk.linework.known?.enclosed ?? null);
  const lit = $derived(task === 'pour' && resting ? desk.linework.areaAt(over!.sheet) : null);
  const area = $derived(lit === null ? null : (enclosed?.areas[lit] ?? null));
  const fill = $derived(hexOf(pourFill(desk), desk.colouring.palette));
  const bridges = $derived(task === 'pour' ? (enclosed?.bridges ?? []) : []);
  const under = $derived(task === 'weed' && resting ? pieceUnder(desk, over!.sheet) : null);
  const gone = $derived(under === null ? [...desk.linework.gone] : [under]);
  const pieces = $derived(desk.linework.pieces?.found.pieces ?? []);
  const matrix = $derived(`matrix(${view.scale} 0 0 ${view.scale} ${view.tx} ${view.ty})`);
  const bed = (p: Point): string => pointText(toBed(view, p));
  const curve = ([a, b, c, d]: LinePiece['cubics'][number]): string =>
    `M${bed(a)}C${bed(b)} ${bed(c)} ${bed(d)}`;
  const swipe = $derived(desk.linework.swipe);
</script>

<svg class="lines" aria-hidden="true">
  {#if area}
    <path
      class="area"
      d={drawnData(area.paths)}
      transform={matrix}
      {fill}
      vector-effect="non-scaling-stroke"
    />
  {/if}
  {#each bridges as { from, to }, i (i)}
    <path class="halo" d="M{bed(from)}L{bed(to)}" />
    <path class="bridge" class:used={area?.bridges.includes(i)} d="M{bed(from)}L{bed(to)}" />
  {/each}
  {#if swipe.length > 1}
    <path class="swipe" d="M{swipe.map(bed).join('L')}" />
  {/if}
  {#each gone as n (n)}
    {@const d = (pieces[n]?.cubics ?? []).map(curve).join('')}
    <path class="halo wide" {d} />
    <path class="gone" {d} />
  {/each}
</svg>

<style>
  .lines {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    pointer-events: none;
  }
  .area {
    fill-opacity: 0.62;
    fill-rule: evenodd;
    stroke: var(--carrot);
    stroke-width: 1.5;
  }
  .halo,
  .bridge,
  .gone,
  .swipe {
    fill: none;
    stroke-linecap: round;
  }
  .halo {
    stroke: var(--halo);
    stroke-width: 4;
  }
  .halo.wide {
    stroke-width: 5;
  }
  .bridge {
    stroke: var(--leaf);
    stroke-width: 1.75;
    stroke-dasharray: 2 3;
  }
  .bridge.used {
    stroke: var(--carrot);
  }
  .gone {
    stroke: var(--brick);
    stroke-width: 2.5;
    stroke-dasharray: 5 4;
  }
  .swipe {
    stroke: var(--brick);
    stroke-width: 14;
    stroke-linejoin: round;
    opacity: 0.22;
  }
</style>
