<script lang="ts">
  import type { Desk } from '$lib/desk/desk.svelte';
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

  const inset = $derived({ ...view, tx: view.tx + margin, ty: view.ty + margin });
</script>

<svg
  style:left="{-margin}px"
  style:top="{-margin}px"
  width={desk.looking.bed.width + 2 * margin}
  height={desk.looking.bed.height + 2 * margin}
  aria-hidden="true"
>
  <g transform={matrixText(viewMatrix(inset))}>{@render children()}</g>
</svg>

<style>
  svg {
    position: absolute;
  }
</style>
