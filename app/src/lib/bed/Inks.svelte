<script lang="ts">
  import { drawnData, haloOf, lineRuns, shownShapesIn, wholePaths } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { View } from '$lib/desk/view';
  import Layer from './Layer.svelte';

  let { desk, view, margin }: { desk: Desk; view: View; margin: number } = $props();

  const seen = $derived(desk.looking.seen);
  // Lines are built when they are first seen: a finished drawing opens without them.
  let inked = $state(false);
  $effect.pre(() => {
    if (seen.ink) inked = true;
  });
  const width = $derived(desk.habits.inkWidth);
  const active = $derived(new Set(desk.live ? [desk.live.shape] : desk.choice.shapes));
</script>

<Layer {desk} {view} {margin}>
  <g
    class="inks"
    style:display={seen.ink ? null : 'none'}
    style:--thin="{(0.65 * width) / view.scale}px"
    style:--strong="{width / view.scale}px"
    style:--wide="{(width + 1.4) / view.scale}px"
  >
    {#each inked ? desk.art.layers : [] as layer (layer.id)}
      {#each layer.shown ? shownShapesIn(layer) : [] as shape (shape.id)}
        {@const ink = desk.picture.inks.of(shape, layer.ink)}
        {@const { stroke } = shape}
        {#if desk.habits.trueStroke && stroke && desk.step === 'refine'}
          <path
            class="weight"
            d={drawnData(wholePaths(shape))}
            stroke={ink}
            style:stroke-linecap={stroke.ends}
            style:stroke-linejoin={stroke.joins}
            style:stroke-miterlimit={stroke.miterLimit}
            style:stroke-dasharray={stroke.dash.join(' ') || null}
            style:stroke-width="{stroke.width}px"
          />
        {/if}
        {#if desk.habits.haze && desk.step === 'refine' && active.has(shape.id)}
          <path class="haze" d={drawnData(wholePaths(shape))} fill={ink} />
        {/if}
        {@const lines = lineRuns(wholePaths(shape))}
        {#each lines as d, i (i)}<path class="halo" {d} stroke={haloOf(ink)} />{/each}
        {#each lines as d, i (i)}
          <path {d} stroke={ink} class:active={active.has(shape.id)} data-shape={i === 0 ? shape.id : null} />
        {/each}
      {/each}
    {/each}
  </g>
</Layer>

<style>
  .inks {
    fill: none;
    stroke-width: var(--thin);
    stroke-linejoin: round;
  }
  .halo {
    stroke-opacity: 0.7;
    stroke-width: var(--wide);
  }
  .weight {
    stroke-opacity: 0.28;
  }
  .haze {
    fill-opacity: 0.36;
    fill-rule: evenodd;
  }
  .active {
    stroke-width: var(--strong);
  }
</style>
