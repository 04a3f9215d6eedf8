<script lang="ts">
  import { DARKEST_DIFFERENCE, DIFFERENCE_LADDER, EYE_CATCHING } from '@mirrot/core';
  import { onMount, untrack } from 'svelte';
  import { differenceOf } from '$lib/desk/differing';
  import type { Workplace } from '$lib/desk/workplace.svelte';

  // How far the drawing's colours are from the picture's, worked out anew after changes.
  let { workplace }: { workplace: Workplace } = $props();
  const { desk } = $derived(workplace);
  const { comparing } = $derived(desk);
  /** Milliseconds without a change after which it is worked out anew. */
  const RESTS_MS = 300;
  let trouble: string | null = $state(null);

  function show(map: typeof comparing.map): void {
    const before = comparing.map;
    comparing.map = map;
    if (before) URL.revokeObjectURL(before.href);
  }
  onMount(() => () => show(null));
  const settings = $derived(desk.picture.traced && desk.picture.inks.raster);
  $effect(() => {
    const art = desk.drawing.kept;
    const picture = desk.picture.traced;
    const raster = settings;
    if (!picture || !raster) return;
    let wanted = true;
    const work = async (): Promise<void> => {
      try {
        const map = await differenceOf(art, picture, raster);
        if (!wanted) return void (map && URL.revokeObjectURL(map.href));
        if (map) show(map);
        trouble = null;
      } catch (error) {
        if (wanted) trouble = (error as Error).message;
      }
    };
    const resting = setTimeout(() => void work(), untrack(() => comparing.map) === null ? 0 : RESTS_MS);
    return () => {
      wanted = false;
      clearTimeout(resting);
    };
  });
  const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
</script>

<div class="difference">
  {#if trouble}<p>{trouble}</p>{/if}
  {#if !desk.picture.traced}
    <p class="quiet">There is no picture to compare with.</p>
  {:else if !comparing.map}
    <p class="quiet" role="status">Comparing the colours.</p>
  {:else if Number.isNaN(comparing.map.mean)}
    <p class="quiet">Nothing is filled over the picture yet.</p>
  {:else}
    <dl aria-label="Difference">
      <dt>mean</dt>
      <dd>ΔE {comparing.map.mean.toFixed(2)}</dd>
      <dt>beyond ΔE {EYE_CATCHING}</dt>
      <dd>{percent(comparing.map.beyond)}</dd>
      <dt>of the sheet compared</dt>
      <dd>{percent(comparing.map.compared)}</dd>
    </dl>
    <div
      class="ladder"
      aria-hidden="true"
      style:background="linear-gradient(90deg, {DIFFERENCE_LADDER.join(', ')})"
    ></div>
    <p class="ends quiet"><span>alike</span><span>ΔE {DARKEST_DIFFERENCE} and more</span></p>
    <p class="quiet">What is not drawn is left out.</p>
  {/if}
</div>

<style>
  .difference {
    display: flex;
    flex-direction: column;
    gap: 4px;
    padding-left: 8px;
    border-left: 2px solid var(--leaf);
  }
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 2px 10px;
    margin: 0;
  }
  dt {
    color: var(--quiet);
  }
  dd {
    margin: 0;
    font-variant-numeric: tabular-nums;
  }
  .ladder {
    height: 10px;
    border: 1px solid var(--line);
    border-radius: 3px;
  }
  p {
    margin: 0;
  }
  .ends {
    display: flex;
    justify-content: space-between;
    font-size: 12px;
  }
</style>
