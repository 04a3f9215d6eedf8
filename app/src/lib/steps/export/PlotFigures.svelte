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
  /** A saving of less is none worth telling, millimetres. */
  const LEAST_TOLD = 0.5;
  const told = $derived.by(() => {
    if (trouble) return trouble;
    if (!way) return 'Planning the way …';
    const { drawn, travel, lifts } = way;
    const comes = `${metres(drawn)} drawn, ${metres(travel)} travelled, ${lifts} ${lifts === 1 ? 'lift' : 'lifts'}`;
    if (saved <= LEAST_TOLD) return comes;
    return `${comes}; ${metres(saved)} ${out.shortWay ? 'saved' : 'could be saved'}`;
  });
</script>

<Toggle label="Short way between strokes" on={out.shortWay} change={(on) => (out.shortWay = on)} />
<p class="quiet" aria-live="polite">{told}</p>

<style>
  p {
    margin: 0;
  }
</style>
