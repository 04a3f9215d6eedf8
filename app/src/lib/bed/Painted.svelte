<script lang="ts">
  import { coveringAttributes, shapeAttributes, type PaintedPart, type Reference } from '@mirrot/core';
  import type { Seeing } from '$lib/desk/seeing.svelte';
  import { chunker } from './chunks';
  import Definitions from './Definitions.svelte';
  import Self from './Painted.svelte';
  import PaintedPicture from './PaintedPicture.svelte';

  // Parts of the paint list as SVG: what a file has, on the bed and in thumbnails.
  interface Props {
    parts: readonly PaintedPart[];
    /** Tells apart what is drawn of one part in several places of the page. */
    place: string;
    seeing: Seeing;
  }
  let { parts, place, seeing }: Props = $props();

  const chunked = chunker<PaintedPart>();
  const chunks = $derived(chunked(parts));

  const reference: Reference = (what, part) =>
    `${place}-${what}-${what === 'clip' ? `${part.clip!.id}-${part.id}` : part.id}`;

  /** Whether a part is no more than a path of one colour, as nearly all are: a fill, perhaps a pen's stroke. */
  const isPlain = (part: PaintedPart): boolean =>
    part.type === 'shape' &&
    part.blur === 0 &&
    part.shadow === null &&
    part.clip === null &&
    part.mask === null &&
    part.blend === 'normal' &&
    part.fill?.kind !== 'linear' &&
    part.fill?.kind !== 'radial' &&
    (part.stroke === null ||
      (part.stroke.paint.kind === 'flat' &&
        part.stroke.dash.length === 0 &&
        !part.stroke.under &&
        part.stroke.ends === 'round' &&
        part.stroke.joins === 'round'));
</script>

{#snippet painted(inMask: readonly PaintedPart[])}<Self
    parts={inMask}
    place="{place}-in-mask"
    {seeing}
  />{/snippet}

{#each chunks as chunk, i (i)}
  {#each chunk as part (part.id)}
    {#if part.type === 'shape' && isPlain(part)}
      {@const drawn = shapeAttributes(part, reference) as Record<string, string | null>}
      <path
        class="plain"
        data-part={part.id}
        d={drawn.d}
        fill={drawn.fill}
        stroke={drawn.stroke}
        stroke-width={drawn['stroke-width']}
        opacity={drawn.opacity}
      />
    {:else}
      <Definitions {part} {reference} {painted} />
      {#if part.type === 'shape'}
        <path data-part={part.id} {...shapeAttributes(part, reference)} />
      {:else if part.type === 'group'}
        <g {...coveringAttributes(part, reference)}><Self parts={part.parts} {place} {seeing} /></g>
      {:else}
        <g {...coveringAttributes(part, reference)}><PaintedPicture {part} {place} {seeing} /></g>
      {/if}
    {/if}
  {/each}
{/each}

<style>
  /* Set once for all of them: every attribute costs on thousands of paths. */
  .plain {
    fill-rule: evenodd;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
</style>
