<script lang="ts">
  import { drawShape, type ShapeNode } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { View } from '$lib/desk/view';
  import Layer from './Layer.svelte';

  let { desk, view, margin }: { desk: Desk; view: View; margin: number } = $props();

  const seen = $derived(desk.seen);
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

<Layer {desk} {view} {margin}>
  <g class="fills" opacity={seen.fills} style:display={seen.fills > 0 ? null : 'none'}>
    {#each desk.art.layers as layer (layer.id)}
      {#if layer.shown}<g>{@render fills(layer.children)}</g>{/if}
    {/each}
  </g>
</Layer>

<style>
  .fills {
    fill-rule: evenodd;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
</style>
