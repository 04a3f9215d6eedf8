<script lang="ts">
  import {
    blurRoom,
    coveringAttributes,
    drawnData,
    gradientElement,
    seenSize,
    shapeAttributes,
    type PaintedPart,
    type Reference,
  } from '@mirrot/core';
  import { asPainted, type Seeing } from '$lib/desk/seeing.svelte';
  import { matrixText } from '$lib/desk/view';
  import Self from './Painted.svelte';

  // Parts of the paint list as SVG: what a file has, on the bed and in thumbnails.
  interface Props {
    parts: readonly PaintedPart[];
    /** Tells apart what is drawn of one part in several places of the page. */
    place: string;
    seeing: Seeing;
  }
  let { parts, place, seeing }: Props = $props();

  const reference: Reference = (what, part) =>
    `${place}-${what}-${what === 'clip' ? `${part.clip!.id}-${part.id}` : part.id}`;
</script>

{#snippet gradient(part: PaintedPart, what: 'fill' | 'stroke')}
  {@const paint = part.type !== 'shape' ? null : what === 'fill' ? part.fill : part.stroke?.paint}
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
{/snippet}

{#each parts as part (part.id)}
  {@render gradient(part, 'fill')}
  {@render gradient(part, 'stroke')}
  {#if part.blur > 0}
    <filter id={reference('blur', part)} {...blurRoom(part)}>
      <feGaussianBlur stdDeviation={part.blur} />
    </filter>
  {/if}
  {#if part.clip}
    <clipPath id={reference('clip', part)}>
      <path d={drawnData(part.clip.paths)} clip-rule="evenodd" />
    </clipPath>
  {/if}
  {#if part.type === 'shape'}
    <path data-part={part.id} {...shapeAttributes(part, reference)} />
  {:else if part.type === 'group'}
    <g {...coveringAttributes(part, reference)}><Self parts={part.parts} {place} {seeing} /></g>
  {:else}
    {@const picture = asPainted(part.picture)}
    {@const { crop } = picture}
    {@const hrefs = seeing.hrefs(picture)}
    {#if crop}
      <clipPath id="{place}-crop-{part.id}">
        <rect x={crop.x0} y={crop.y0} width={crop.x1 - crop.x0} height={crop.y1 - crop.y0} />
      </clipPath>
    {/if}
    <g {...coveringAttributes(part, reference)}>
      {#if hrefs}
        <image
          href={hrefs.full}
          {...seenSize(picture)}
          transform={matrixText(picture.placement)}
          clip-path={crop ? `url(#${place}-crop-${part.id})` : null}
          preserveAspectRatio="none"
        />
      {/if}
    </g>
  {/if}
{/each}
