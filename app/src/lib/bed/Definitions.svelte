<script lang="ts">
  import {
    drawnData,
    filterElement,
    gradientElement,
    maskElements,
    type MaskElement,
    type PaintedPart,
    type Reference,
  } from '@mirrot/core';
  import type { Snippet } from 'svelte';
  import Element from './Element.svelte';

  // What a part refers to: its gradients, its blur and shadow, its clip and its mask.
  interface Props {
    part: PaintedPart;
    reference: Reference;
    /** Paints parts of a drawing that a mask takes its light from. */
    painted: Snippet<[NonNullable<MaskElement['parts']>]>;
  }
  let { part, reference, painted }: Props = $props();

  const paints = $derived(
    part.type === 'shape'
      ? ([
          ['fill', part.fill],
          ['stroke', part.stroke?.paint],
        ] as const)
      : [],
  );
  const filter = $derived(filterElement(part));
  const mask = $derived.by(() => {
    if (!part.mask) return [];
    const id = reference('mask', part);
    return maskElements(part.mask, (what) => (what === 'mask' ? id : `${id}-${what}`));
  });
</script>

{#each paints as [what, paint] (what)}
  {@const element = gradientElement(paint)}
  {#if element}
    <svelte:element
      this={element.name}
      xmlns="http://www.w3.org/2000/svg"
      id={reference(what, part)}
      {...element.attributes}
    >
      {#each element.stops as stop, i (i)}<stop {...stop} />{/each}
    </svelte:element>
  {/if}
{/each}
{#if filter}
  <filter id={reference('filter', part)} {...filter.attributes}>
    {#each filter.steps as step, i (i)}<Element element={step} />{/each}
  </filter>
{/if}
{#if part.clip}
  <clipPath id={reference('clip', part)}>
    <path d={drawnData(part.clip.paths)} clip-rule="evenodd" />
  </clipPath>
{/if}
{#each mask as element, i (i)}<Element {element} {painted} />{/each}
