<script lang="ts">
  import { paintList, type Point } from '@mirrot/core';
  import type { Beside as Halves } from '$lib/desk/comparing.svelte';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { View } from '$lib/desk/view';
  import HalfMark from './HalfMark.svelte';
  import Layer from './Layer.svelte';
  import Painted from './Painted.svelte';
  import Pictures from './Pictures.svelte';

  // What lies beside the drawing while the bed has two halves: the picture as it is, or a kept copy.
  interface Props {
    desk: Desk;
    halves: Halves;
    view: View;
    margin: number;
    /** Takes what was drawn in `view` to where it is seen now, as CSS. */
    transform: string;
    /** Where the pointer is, in the half's pixels; null where it is not, or in this half itself. */
    pointer: Point | null;
  }
  let { desk, halves, view, margin, transform, pointer }: Props = $props();
</script>

<div class="moving" style:transform>
  {#if halves.copy}
    {@const { art } = halves.copy}
    <Layer {desk} {view} {margin}>
      <rect width={art.sheet.width} height={art.sheet.height} fill={art.sheet.ground ?? '#fffdf8'} />
      <Painted parts={paintList(art)} place="other-half" seeing={desk.picture.seeing} />
    </Layer>
  {:else}
    <Pictures {desk} {view} {margin} alone />
  {/if}
</div>
<HalfMark text={halves.copy?.name ?? 'the picture'} inset={8} {pointer} />

<style>
  .moving {
    position: absolute;
    inset: 0;
    transform-origin: 0 0;
    will-change: transform;
    pointer-events: none;
  }
</style>
