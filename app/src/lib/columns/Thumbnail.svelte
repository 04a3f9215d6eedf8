<script lang="ts">
  import {
    boxHeight,
    boxWidth,
    drawnData,
    EMPTY_BOX,
    isEmptyBox,
    paintedBox,
    paintedNode,
    shapeBounds,
    shapesIn,
    uniteBoxes,
    wholePaths,
    type Group,
    type Shape,
  } from '@mirrot/core';
  import Painted from '$lib/bed/Painted.svelte';
  import type { Desk } from '$lib/desk/desk.svelte';

  interface Props {
    desk: Desk;
    node: Shape | Group;
    /** Tells apart thumbnails of one node that are on the page at once. */
    place: string;
  }
  let { desk, node, place }: Props = $props();

  const bare = $derived(shapesIn(node).every((shape) => !shape.fill && !shape.stroke));
  const part = $derived(bare ? null : paintedNode(desk.drawing.kept, node));
  const box = $derived.by(() => {
    const b = part
      ? paintedBox([part])
      : shapesIn(node)
          .map((s) => shapeBounds(s))
          .reduce(uniteBoxes, EMPTY_BOX);
    if (isEmptyBox(b)) return '0 0 1 1';
    const size = Math.max(boxWidth(b), boxHeight(b), 1e-3) * 1.12;
    return `${(b.x0 + b.x1 - size) / 2} ${(b.y0 + b.y1 - size) / 2} ${size} ${size}`;
  });
</script>

<svg class="thumb" viewBox={box} width="28" height="28" aria-hidden="true">
  {#if part}
    <Painted parts={[part]} {place} seeing={desk.picture.seeing} />
  {:else}
    {#each shapesIn(node) as shape (shape.id)}<path class="bare" d={drawnData(wholePaths(shape))} />{/each}
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
