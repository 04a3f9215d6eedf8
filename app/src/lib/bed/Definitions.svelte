<script lang="ts">
  import { drawnData, filterElement, gradientElement, type PaintedPart, type Reference } from '@mirrot/core';

  // What a part refers to: its gradients, its blur and shadow, its clip.
  let { part, reference }: { part: PaintedPart; reference: Reference } = $props();

  const paints = $derived(
    part.type === 'shape'
      ? ([
          ['fill', part.fill],
          ['stroke', part.stroke?.paint],
        ] as const)
      : [],
  );
  const filter = $derived(filterElement(part));
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
    {#each filter.steps as step, i (i)}
      <svelte:element this={step.name} xmlns="http://www.w3.org/2000/svg" {...step.attributes}>
        {#each step.inner ?? [] as inner, k (k)}<svelte:element
            this={inner.name}
            xmlns="http://www.w3.org/2000/svg"
            {...inner.attributes}
          />{/each}
      </svelte:element>
    {/each}
  </filter>
{/if}
{#if part.clip}
  <clipPath id={reference('clip', part)}>
    <path d={drawnData(part.clip.paths)} clip-rule="evenodd" />
  </clipPath>
{/if}
