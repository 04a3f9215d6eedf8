<script lang="ts">
  // The drawing in a colourway, as a picture: hundreds of shapes in a dozen colourways would be thousands of elements.
  let { svg, height }: { svg: string; height: number } = $props();
  let address: string | null = $state(null);
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
