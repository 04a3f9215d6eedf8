<script lang="ts">
  import { changeArt, recolourChips, writeSvg, type Art } from '@mirrot/core';

  // The drawing in a colourway, as a picture: hundreds of shapes in a dozen colourways would be thousands of elements.
  interface Props {
    art: Art;
    hexes: Readonly<Record<string, string>>;
    height: number;
  }
  let { art, hexes, height }: Props = $props();
  let address: string | null = $state(null);
  const svg = $derived(writeSvg(changeArt(art, recolourChips(hexes)).art, { area: 'drawing' }));
  $effect(() => {
    const made = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
    address = made;
    return () => URL.revokeObjectURL(made);
  });
</script>

<span class="picture clear-ground" style:height="{height}px">
  {#if address}<img src={address} alt="" />{/if}
</span>

<style>
  .picture {
    display: grid;
    place-items: center;
    padding: 4px;
  }
  img {
    max-width: 100%;
    max-height: 100%;
    min-height: 0;
    object-fit: contain;
  }
</style>
