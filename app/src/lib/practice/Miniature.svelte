<script lang="ts">
  import { growBox } from '@mirrot/core';
  import type { ClassEntry } from '$lib/wire-practice';

  // What was handed in over the true lines, in small.
  let { truth, lines }: { truth: NonNullable<ClassEntry['truth']>; lines: string } = $props();
  const box = $derived.by(() => {
    const { x0, y0, x1, y1 } = truth.box;
    return growBox(truth.box, 0.06 * Math.max(x1 - x0, y1 - y0, 1));
  });
</script>

<svg viewBox="{box.x0} {box.y0} {box.x1 - box.x0} {box.y1 - box.y0}" aria-hidden="true">
  <path class="truth" d={truth.d} />
  <path class="drawn" d={lines} />
</svg>

<style>
  svg {
    display: block;
    width: 54px;
    height: 40px;
  }
  path {
    fill: none;
    stroke-width: 1.25;
    vector-effect: non-scaling-stroke;
  }
  .truth {
    stroke: var(--line);
    stroke-width: 4;
  }
  .drawn {
    stroke: var(--carrot);
  }
</style>
