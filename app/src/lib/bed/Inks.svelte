<script lang="ts">
  import { drawnData, haloOf, lineRuns, wholePaths, type ShapeNode } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { View } from '$lib/desk/view';
  import Layer from './Layer.svelte';

  let { desk, view, margin }: { desk: Desk; view: View; margin: number } = $props();

  const seen = $derived(desk.seen);
  // Lines are built when they are first seen: a finished drawing opens without them.
  let inked = $state(false);
  $effect.pre(() => {
    if (seen.ink) inked = true;
  });
  const width = $derived(desk.habits.inkWidth);
  const active = $derived(new Set(desk.live ? [desk.live.shape] : desk.choice.shapes));
</script>

{#snippet inks(nodes: readonly ShapeNode[], layerInk: string | null)}
  {#each nodes as node (node.id)}
    {#if node.shown}
      {#if node.type === 'group'}
        {@render inks(node.children, layerInk)}
      {:else}
        {@const ink = desk.inks.of(node, layerInk)}
        {#if desk.trueStroke && node.stroke && desk.step === 'refine'}
          <path
            class="weight"
            d={drawnData(wholePaths(node))}
            stroke={ink}
            style:stroke-width="{node.stroke.width}px"
          />
        {/if}
        {#if desk.haze && desk.step === 'refine' && active.has(node.id)}
          <path class="haze" d={drawnData(wholePaths(node))} fill={ink} />
        {/if}
        {@const lines = lineRuns(wholePaths(node))}
        {#each lines as d, i (i)}<path class="halo" {d} stroke={haloOf(ink)} />{/each}
        {#each lines as d, i (i)}<path {d} stroke={ink} class:active={active.has(node.id)} />{/each}
      {/if}
    {/if}
  {/each}
{/snippet}

<Layer {desk} {view} {margin}>
  <g
    class="inks"
    style:display={seen.ink ? null : 'none'}
    style:--thin="{(0.65 * width) / view.scale}px"
    style:--strong="{width / view.scale}px"
    style:--wide="{(width + 1.4) / view.scale}px"
  >
    {#each inked ? desk.art.layers : [] as layer (layer.id)}
      {#if layer.shown}<g>{@render inks(layer.children, layer.ink)}</g>{/if}
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
    stroke-linecap: round;
  }
  .haze {
    fill-opacity: 0.36;
    fill-rule: evenodd;
  }
  .active {
    stroke-width: var(--strong);
  }
</style>
