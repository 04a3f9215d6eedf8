<script lang="ts">
  import type { Point } from '@mirrot/core';
  import Beside from './Beside.svelte';
  import PointerCross from './PointerCross.svelte';

  // What a half of the bed shows, in words, and where the pointer of the other half is in it.
  let { text, inset, pointer }: { text: string; inset: number; pointer: Point | null } = $props();
</script>

<Beside x={inset} y={inset} {text} spoken />
{#if pointer}<PointerCross at={pointer} />{/if}
