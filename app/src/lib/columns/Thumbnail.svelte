<script lang="ts">
  import {
    boxHeight,
    boxWidth,
    drawnData,
    isEmptyBox,
    paintedBox,
    paintedNode,
    shapeBounds,
    wholePaths,
    type Shape,
  } from '@mirrot/core';
  import Painted from '$lib/bed/Painted.svelte';
  import type { Desk } from '$lib/desk/desk.svelte';

  interface Props {
    desk: Desk;
    shape: Shape;
    /** Tells apart thumbnails of one shape that are on the page at once. */
    place: string;
  }
  let { desk, shape, place }: Props = $props();

  const bare = $derived(!shape.fill && !shape.stroke);
  const part = $derived(bare ? null : paintedNode(desk.drawing.kept, shape));
  const box = $derived.by(() => {
    const b = part ? paintedBox([part]) : shapeBounds(shape);
    if (isEmptyBox(b)) return '0 0 1 1';
    const size = Math.max(boxWidth(b), boxHeight(b), 1e-3) * 1.12;
    return `${(b.x0 + b.x1 - size) / 2} ${(b.y0 + b.y1 - size) / 2} ${size} ${size}`;
  });
</script>

<svg class="thumb" viewBox={box} width="28" height="28" aria-hidden="true">
  {#if part}
    <Painted parts={[part]} {place} seeing={desk.picture.seeing} />
  {:else}
    <path class="bare" d={drawnData(wholePaths(shape))} />
  {/if}
</svg>

<style>
  .thumb {
    flex: none;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: #fffdf8;
  }
  .bare {
    fill: none;
    stroke: var(--quiet);
    stroke-width: 1.2;
    vector-effect: non-scaling-stroke;
  }
</style>
