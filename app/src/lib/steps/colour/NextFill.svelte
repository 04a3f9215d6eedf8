<script lang="ts">
  import { ToggleGroup } from '@skeletonlabs/skeleton-svelte';
  import { hexOf } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';

  let { desk }: { desk: Desk } = $props();

  /** Stands for no fill among the chips. */
  const NONE = 'none';
  const next = $derived(desk.colouring.nextFill);
  /** The chip that is chosen; none at all for a colour that is no chip. */
  const value = $derived(next === null ? [NONE] : 'chip' in next ? [next.chip] : []);
  const choose = ([chip]: string[]): void =>
    void (desk.colouring.nextFill = chip && chip !== NONE ? { chip } : null);
</script>

<section aria-label="Fill of the next path">
  <h3 class="panel-title">
    Next path <span>{next ? hexOf(next, desk.colouring.palette).toUpperCase() : 'no fill'}</span>
  </h3>
  <ToggleGroup
    {value}
    deselectable={false}
    class="next-fill"
    aria-label="Fill of the next path"
    onValueChange={(d) => choose(d.value)}
  >
    <ToggleGroup.Item
      value={NONE}
      class="chip clear-ground"
      aria-label="No fill for the next path"
      data-tip="No fill"
    />
    {#each desk.art.chips as chip (chip.id)}
      <ToggleGroup.Item
        value={chip.id}
        class="chip"
        style="background: {chip.hex}"
        aria-label="Fill the next path with {chip.name || chip.hex.toUpperCase()}"
        data-tip={chip.name || chip.hex.toUpperCase()}
      />
    {/each}
  </ToggleGroup>
</section>

<style>
  section :global(.next-fill) {
    display: flex;
    flex-wrap: wrap;
    gap: 5px;
  }
  section :global(.chip) {
    width: 26px;
    height: 26px;
    border: 1px solid var(--line);
    border-radius: 6px;
  }
  section :global(.chip[data-state='on']) {
    outline: 2px solid var(--carrot);
    outline-offset: 1px;
  }
</style>
