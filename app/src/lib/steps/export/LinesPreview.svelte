<script lang="ts">
  import { boxHeight, boxWidth } from '@mirrot/core';
  import type { LinesMade } from '$lib/workers/files';

  // The very lines of the file.
  let { made, name }: { made: LinesMade; name: string } = $props();
  const box = $derived(made.written);
</script>

<svg
  role="img"
  aria-label={name}
  viewBox="{box.x0} {box.y0} {boxWidth(box)} {boxHeight(box)}"
  width={boxWidth(box)}
  height={boxHeight(box)}
>
  <path d={made.data} />
</svg>

<style>
  svg {
    width: 100%;
    max-width: 100%;
    height: auto;
    max-height: 150px;
    background: #ffffff;
  }
  path {
    fill: none;
    stroke: #22252b;
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
  }
</style>
