<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import type { PlotFigures } from '$lib/wire';
  import { fetchFigures, queryAs } from './commands';

  // What the file comes to on a plotter: how much is drawn, how much travelled between, and what a short way saves.
  let { workplace }: { workplace: Workplace } = $props();
  const out = $derived(workplace.exporting);
  const asked = $derived(
    workplace.saving.state === 'kept'
      ? JSON.stringify([workplace.saving.revision, { ...queryAs(workplace, 'plt'), order: '' }])
      : null,
  );
  let figures = $state.raw<PlotFigures | null>(null);
  let trouble = $state<string | null>(null);
  $effect(() => {
    if (asked === null) return;
    const stopper = new AbortController();
    figures = null;
    trouble = null;
    fetchFigures(workplace, stopper.signal).then(
      (got) => (figures = got),
      (error: Error) => !stopper.signal.aborted && (trouble = error.message),
    );
    return () => stopper.abort();
  });
  const way = $derived(figures && (out.shortWay ? figures.short : figures.kept));
  const saved = $derived(figures ? figures.kept.travel - figures.short.travel : 0);
  const metres = (mm: number): string => (mm >= 1000 ? `${(mm / 1000).toFixed(2)} m` : `${mm.toFixed(0)} mm`);
</script>

<Toggle label="Short way between strokes" on={out.shortWay} change={(on) => (out.shortWay = on)} />
<p class="quiet" aria-live="polite">
  {#if trouble}
    {trouble}
  {:else if way && figures}
    {metres(way.drawn)} drawn, {metres(way.travel)} travelled, {way.lifts}
    {way.lifts === 1 ? 'lift' : 'lifts'}{out.shortWay
      ? saved > 0.5
        ? `; ${metres(saved)} saved`
        : '; their order is the shortest known'
      : saved > 0.5
        ? `; ${metres(saved)} could be saved`
        : ''}
  {:else}
    Planning the way …
  {/if}
</p>

<style>
  p {
    margin: 0;
  }
</style>
