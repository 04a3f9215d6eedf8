<script lang="ts">
  import { coveringOutlines, drawnData, pictureOutline, transformPath } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { View } from '$lib/desk/view';

  // What of the traced picture no shape covers, hatched.
  let { desk, view }: { desk: Desk; view: View } = $props();
  const picture = $derived(desk.picture.traced!);
  const area = $derived(transformPath(pictureOutline(picture), picture.placement));
  const covers = $derived(coveringOutlines(desk.art));
  /** Screen pixels between the lines of the hatching. */
  const APART_PX = 9;
  const apart = $derived(APART_PX / view.scale);
</script>

<defs>
  <mask id="bare-of-shapes" maskUnits="userSpaceOnUse" x="-1e6" y="-1e6" width="2e6" height="2e6">
    <path d={drawnData([area])} fill="#fff" />
    {#each covers as paths, i (i)}
      <path d={drawnData(paths)} fill="#000" fill-rule="evenodd" />
    {/each}
  </mask>
  <pattern
    id="bare-hatching"
    width={apart}
    height={apart}
    patternUnits="userSpaceOnUse"
    patternTransform="rotate(45)"
  >
    <rect width={apart} height={apart} fill="#fffdf6" fill-opacity=".45" />
    <path d="M0 0H{apart}" stroke="#a32a21" stroke-width={apart / 4} />
  </pattern>
</defs>
<path d={drawnData([area])} fill="url(#bare-hatching)" mask="url(#bare-of-shapes)" />
