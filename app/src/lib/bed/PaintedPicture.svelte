<script lang="ts">
  import { seenSize, type PaintedPicture } from '@mirrot/core';
  import { asPainted, type Seeing } from '$lib/desk/seeing.svelte';
  import { matrixText } from '$lib/desk/view';

  // A picture that is part of the drawing: its own pixels, straightened and cropped.
  let { part, place, seeing }: { part: PaintedPicture; place: string; seeing: Seeing } = $props();

  const picture = $derived(asPainted(part.picture));
  const hrefs = $derived(seeing.hrefs(picture));
  const { crop } = $derived(picture);
  $effect(() => void seeing.want(picture, true));
</script>

{#if crop}
  <clipPath id="{place}-crop-{part.id}">
    <rect x={crop.x0} y={crop.y0} width={crop.x1 - crop.x0} height={crop.y1 - crop.y0} />
  </clipPath>
{/if}
{#if hrefs}
  <image
    href={hrefs.full}
    {...seenSize(picture)}
    transform={matrixText(picture.placement)}
    clip-path={crop ? `url(#${place}-crop-${part.id})` : null}
    preserveAspectRatio="none"
  />
{/if}
