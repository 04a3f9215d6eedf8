<script lang="ts">
  import type { Desk } from '$lib/desk/desk.svelte';
  import { eyesMatrix } from './eyes';
  import { matrixText, viewMatrix, type View } from '$lib/desk/view';
  import type { Snippet } from 'svelte';

  // A layer of the bed in sheet pixels, drawn in the view it was last at rest in, with room beyond the bed's edges.
  interface Props {
    desk: Desk;
    view: View;
    margin: number;
    children: Snippet;
  }
  let { desk, view, margin, children }: Props = $props();

  const eyes = $derived(desk.comparing.seenWith);
  const id = $props.id();
  const inset = $derived({ ...view, tx: view.tx + margin, ty: view.ty + margin });
</script>

<svg
  style:left="{-margin}px"
  style:top="{-margin}px"
  width={desk.looking.bed.width + 2 * margin}
  height={desk.looking.bed.height + 2 * margin}
  aria-hidden="true"
>
  {#if eyes}
    <filter
      id="eyes-{id}"
      filterUnits="userSpaceOnUse"
      x="0"
      y="0"
      width="100%"
      height="100%"
      color-interpolation-filters="linearRGB"
    >
      <feColorMatrix type="matrix" values={eyesMatrix(eyes)} />
    </filter>
  {/if}
  <g filter={eyes ? `url(#eyes-${id})` : null}>
    <g transform={matrixText(viewMatrix(inset))}>{@render children()}</g>
  </g>
</svg>

<style>
  svg {
    position: absolute;
  }
</style>
