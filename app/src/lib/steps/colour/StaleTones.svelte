<script lang="ts">
  import { untrack } from 'svelte';
  import { chooseShapes } from '$lib/desk/choice';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { toning } from './commands';

  // Body tones are looked for anew, quietly, when shapes show more or less of the picture than before; what differs is told.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  /** So long after the last change they are looked for, milliseconds. */
  const RESTS_MS = 500;
  $effect(() => {
    void desk.drawing.kept;
    if (desk.offer || desk.pointing.pressing || !desk.picture.driftSettings) return;
    const timer = setTimeout(
      () => untrack(() => toning(workplace, ({ findStale }) => findStale(workplace))),
      RESTS_MS,
    );
    return () => clearTimeout(timer);
  });
  const stale = $derived(desk.colouring.stale.filter((id) => desk.shapeOf(id)?.toned));
  const named = $derived(
    stale.length === 1 ? (desk.shapeOf(stale[0]!)?.name ?? '') : `${stale.length} shapes`,
  );
</script>

{#if stale.length > 0}
  <section aria-label="Body tones to look at again">
    <p dir="auto">
      What {named}
      {stale.length === 1
        ? 'shows of the picture has another body tone now.'
        : 'show of the picture has other body tones now.'}
    </p>
    <div class="button-row">
      <button
        class="plain-button"
        onclick={() => toning(workplace, ({ toneAgain }) => toneAgain(workplace, stale))}
      >
        Look again
      </button>
      <button class="plain-button" onclick={() => desk.choose(chooseShapes(stale))}>Choose them</button>
    </div>
  </section>
{/if}

<style>
  section {
    padding: 6px 8px;
    border-left: 3px solid var(--carrot);
    background: var(--carrot-wash);
    font-size: 12.5px;
  }
  p {
    margin-bottom: 5px;
  }
</style>
