<script lang="ts">
  import Copy from '@lucide/svelte/icons/copy';
  import ImageDown from '@lucide/svelte/icons/image-down';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { copyView, saveView } from './view';

  // What the bed shows now, as an image.
  let { workplace }: { workplace: Workplace } = $props();
</script>

<div class="ways">
  <button class="plain-button" onclick={() => void copyView(workplace)}>
    <Copy size={16} strokeWidth={1.75} />Copy the view
  </button>
  <button class="plain-button" onclick={() => void saveView(workplace)}>
    <ImageDown size={16} strokeWidth={1.75} />Save the view
  </button>
</div>

<style>
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
</style>
