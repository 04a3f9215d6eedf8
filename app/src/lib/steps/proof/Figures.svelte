<script lang="ts">
  import FileText from '@lucide/svelte/icons/file-text';
  import { drawingFigures, formatLength } from '@mirrot/core';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import MakeExercise from '$lib/practice/MakeExercise.svelte';
  import { reportPage } from '$lib/report/api';
  import Fold from '$lib/ui/Fold.svelte';

  // The drawing in figures and charts.
  let { workplace }: { workplace: Workplace } = $props();
  const { desk } = $derived(workplace);
  const figures = $derived(drawingFigures(desk.drawing.kept));
  const { drifts } = $derived(desk.picture);
  const costs = $derived(
    figures.anchorsOf.map(({ shape, anchors }) => {
      const known = drifts.economyOf(shape.id);
      return { shape, anchors, fewest: known?.shape === shape ? known.fewest : null };
    }),
  );
  /** The fewest of the shapes whose edges are known, and what these have. */
  const known = $derived(costs.filter(({ fewest }) => fewest !== null));
  const sum = (of: 'anchors' | 'fewest'): number => known.reduce((n, cost) => n + (cost[of] ?? 0), 0);
  const drift = $derived(desk.picture.driftSettings ? drifts.all : null);
  let charted = $state(false);
</script>

<section>
  <h3 class="panel-title">The drawing</h3>
  <dl aria-label="Figures">
    <dt>shapes</dt>
    <dd>{figures.shapes}</dd>
    <dt>closed paths, open ones</dt>
    <dd>{figures.closed}, {figures.open}</dd>
    <dt>anchors</dt>
    <dd>{figures.anchors}</dd>
    {#if known.length > 0}
      <dt>fewest that hold {known.length === costs.length ? 'the edges' : `the edges of ${known.length}`}</dt>
      <dd>{sum('fewest')}</dd>
    {/if}
    <dt>colours</dt>
    <dd>{figures.colours.length}</dd>
    {#if drift && !Number.isNaN(drift.mean)}
      <dt>drift, mean and worst</dt>
      <dd>{drift.mean.toFixed(1)}, {Math.abs(drift.worst).toFixed(1)} px</dd>
    {/if}
    <dt>to cut or draw</dt>
    <dd>{formatLength(figures.length, desk.art.sheet.unit)}</dd>
    <dt>without fill or stroke</dt>
    <dd>{desk.drawing.figures.shapes - desk.drawing.figures.painted}</dd>
  </dl>
  <Fold title="Charts" turned={(open) => (charted = open)}>
    {#if charted}
      {#await import('../AnchorsChart.svelte') then { default: AnchorsChart }}
        {#if costs.length > 0}<AnchorsChart {desk} {costs} />{/if}
      {:catch}
        <p class="quiet">The charts could not be fetched. Reload the page; nothing is lost.</p>
      {/await}
      {#await import('../AreaChart.svelte') then { default: AreaChart }}<AreaChart
          {desk}
        />{:catch}<!-- said above -->{/await}
    {/if}
  </Fold>
  <a class="plain-button" href={reportPage([workplace.project.id], desk.proving.use)} target="_blank">
    <FileText size={16} strokeWidth={1.75} />Report
  </a>
  <Fold title="Make it an exercise"><MakeExercise {workplace} /></Fold>
</section>

<style>
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 2px 10px;
    margin-bottom: 8px;
  }
  dt {
    color: var(--quiet);
  }
  dd {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
</style>
