<script lang="ts">
  import { boxHeight, boxWidth } from '@mirrot/core';
  import type { DifferenceMap } from '$lib/desk/comparing.svelte';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { View } from '$lib/desk/view';
  import Layer from './Layer.svelte';

  // Where picture and drawing differ.
  let { desk, view, margin, map }: { desk: Desk; view: View; margin: number; map: DifferenceMap } = $props();
</script>

<Layer {desk} {view} {margin}>
  <image
    href={map.href}
    x={map.box.x0}
    y={map.box.y0}
    width={boxWidth(map.box)}
    height={boxHeight(map.box)}
    preserveAspectRatio="none"
  />
</Layer>
