<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { STEP_NAMES } from '$lib/desk/steps';
  import { rove } from '$lib/ui/rove';
  import CommandButton from './CommandButton.svelte';
  import { stepSet } from './step-set';

  let { workplace }: { workplace: Workplace } = $props();
  const { ledge } = stepSet();
  const step = $derived(workplace.desk.step);
  let row: HTMLElement | undefined = $state();
  /** Sides beyond which more actions lie: there the row fades. */
  let more = $state({ left: false, right: false });

  function look(): void {
    if (!row) return;
    const { scrollLeft, clientWidth, scrollWidth } = row;
    more = { left: scrollLeft > 1, right: scrollLeft + clientWidth < scrollWidth - 1 };
  }
  $effect(() => {
    void step;
    if (!row) return;
    row.scrollLeft = 0;
    look();
    const watch = new ResizeObserver(look);
    watch.observe(row);
    return () => watch.disconnect();
  });
</script>

<div
  bind:this={row}
  {@attach rove}
  class="ledge"
  class:left={more.left}
  class:right={more.right}
  role="toolbar"
  aria-label="What {STEP_NAMES[step]} does"
  onscroll={look}
>
  {#each ledge[step] as id, i (id ?? i)}
    {#if id}<CommandButton {workplace} {id} />{:else}<span class="gap"></span>{/if}
  {/each}
</div>

<style>
  .ledge {
    --left: 0px;
    --right: 0px;
    grid-area: ledge;
    display: flex;
    align-items: center;
    gap: 4px;
    min-width: 0;
    padding: 0 12px;
    overflow-x: auto;
    scrollbar-width: none;
    border-top: 1px solid var(--line);
    background: var(--ledge);
    mask-image: linear-gradient(
      to right,
      transparent,
      black var(--left),
      black calc(100% - var(--right)),
      transparent
    );
  }
  .ledge.left {
    --left: 40px;
  }
  .ledge.right {
    --right: 40px;
  }
  .gap {
    flex: none;
    width: 1px;
    height: 30px;
    margin: 0 3px;
    background: var(--line);
  }
</style>
