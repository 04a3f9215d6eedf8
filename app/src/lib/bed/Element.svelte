<script lang="ts">
  import type { MaskElement } from '@mirrot/core';
  import type { Snippet } from 'svelte';
  import Self from './Element.svelte';

  // An element of SVG from data, and what is painted in it.
  interface Props {
    element: MaskElement;
    /** Paints the parts of a drawing that stand in it. */
    painted?: Snippet<[NonNullable<MaskElement['parts']>]>;
  }
  let { element, painted }: Props = $props();
</script>

<svelte:element this={element.name} xmlns="http://www.w3.org/2000/svg" {...element.attributes}>
  {#each element.inner ?? [] as inner, i (i)}<Self element={inner} {painted} />{/each}
  {#if element.parts}{@render painted?.(element.parts)}{/if}
</svelte:element>
