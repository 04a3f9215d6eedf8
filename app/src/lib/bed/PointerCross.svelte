<script lang="ts">
  import type { Point } from '@mirrot/core';

  // Where the pointer is in the other half of the bed; half's pixels.
  let { at }: { at: Point } = $props();
</script>

<svg aria-hidden="true" style:translate="{at.x}px {at.y}px">
  <path class="halo" d="M-10 0H-3M3 0H10M0 -10V-3M0 3V10" />
  <path d="M-10 0H-3M3 0H10M0 -10V-3M0 3V10" />
</svg>

<style>
  svg {
    position: absolute;
    top: 0;
    left: 0;
    overflow: visible;
    width: 1px;
    height: 1px;
    pointer-events: none;
  }
  path {
    fill: none;
    stroke: #22252b;
    stroke-width: 1.5;
  }
  .halo {
    stroke: #fffdf6;
    stroke-width: 4;
  }
</style>
