<script lang="ts">
  import { hexOf } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';

  let { desk }: { desk: Desk } = $props();

  const next = $derived(desk.colouring.nextFill);
</script>

<section aria-label="Fill of the next path">
  <h3 class="panel-title">
    Next path <span>{next ? hexOf(next, desk.colouring.palette).toUpperCase() : 'no fill'}</span>
  </h3>
  <div class="chips">
    <button
      class="chip clear-ground"
      aria-label="No fill for the next path"
      data-tip="No fill"
      aria-pressed={next === null}
      onclick={() => (desk.colouring.nextFill = null)}
    ></button>
    {#each desk.art.chips as chip (chip.id)}
      <button
        class="chip"
        style:background={chip.hex}
        aria-label="Fill the next path with {chip.name || chip.hex.toUpperCase()}"
        data-tip={chip.name || chip.hex.toUpperCase()}
        aria-pressed={next !== null && 'chip' in next && next.chip === chip.id}
        onclick={() => (desk.colouring.nextFill = { chip: chip.id })}
      ></button>
    {/each}
  </div>
</section>

<style>
  .chips {
    display: flex;
    flex-wrap: wrap;
    gap: 5px;
  }
  .chip {
    width: 26px;
    height: 26px;
    border: 1px solid var(--line);
    border-radius: 6px;
  }
  .chip[aria-pressed='true'] {
    outline: 2px solid var(--carrot);
    outline-offset: 1px;
  }
</style>
