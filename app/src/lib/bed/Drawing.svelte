<script lang="ts">
  import { drawnData, drawShape, haloOf, type ShapeNode } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { matrixText, viewMatrix, type View } from '$lib/desk/view';

  let { desk, view, margin }: { desk: Desk; view: View; margin: number } = $props();

  const seen = $derived(desk.seen);
  const inset = $derived({ ...view, tx: view.tx + margin, ty: view.ty + margin });
  // Lines are built when they are first seen: a finished drawing opens without them.
  let inked = $state(false);
  $effect.pre(() => {
    if (seen.ink) inked = true;
  });
  const active = $derived(new Set(desk.live ? [desk.live.shape] : desk.choice.shapes));
</script>

{#snippet fills(nodes: readonly ShapeNode[])}
  {#each nodes as node (node.id)}
    {#if node.shown}
      {#if node.type === 'group'}
        <g opacity={node.opacity}>{@render fills(node.children)}</g>
      {:else}
        {@const drawn = drawShape(node)}
        <path
          data-shape={node.id}
          d={drawn.d}
          fill={drawn.fill}
          stroke={drawn.stroke}
          stroke-width={drawn.stroke ? drawn.strokeWidth : null}
          opacity={drawn.opacity < 1 ? drawn.opacity : null}
        />
      {/if}
    {/if}
  {/each}
{/snippet}

{#snippet inks(nodes: readonly ShapeNode[], layerInk: string | null)}
  {#each nodes as node (node.id)}
    {#if node.shown}
      {#if node.type === 'group'}
        {@render inks(node.children, layerInk)}
      {:else}
        {@const d = drawnData(node.paths)}
        {@const ink = desk.inks.of(node, layerInk)}
        <path class="halo" {d} stroke={haloOf(ink)} />
        <path {d} stroke={ink} class:active={active.has(node.id)} />
      {/if}
    {/if}
  {/each}
{/snippet}

<svg
  class="layer"
  style:left="{-margin}px"
  style:top="{-margin}px"
  width={desk.bed.width + 2 * margin}
  height={desk.bed.height + 2 * margin}
  style:--thin="{1.3 / view.scale}px"
  style:--strong="{2 / view.scale}px"
  style:--wide="{3.4 / view.scale}px"
  aria-hidden="true"
>
  <g transform={matrixText(viewMatrix(inset))}>
    <g class="fills" opacity={seen.fills} style:display={seen.fills > 0 ? null : 'none'}>
      {#each desk.art.layers as layer (layer.id)}
        {#if layer.shown}<g>{@render fills(layer.children)}</g>{/if}
      {/each}
    </g>
    <g class="inks" style:display={seen.ink ? null : 'none'}>
      {#each inked ? desk.art.layers : [] as layer (layer.id)}
        {#if layer.shown}<g>{@render inks(layer.children, layer.ink)}</g>{/if}
      {/each}
    </g>
  </g>
</svg>

<style>
  .layer {
    position: absolute;
  }
  .fills {
    fill-rule: evenodd;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
  .inks {
    fill: none;
    stroke-width: var(--thin);
    stroke-linejoin: round;
  }
  .halo {
    stroke-opacity: 0.7;
    stroke-width: var(--wide);
  }
  .active {
    stroke-width: var(--strong);
  }
</style>
