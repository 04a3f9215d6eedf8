<script lang="ts">
  import { Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
  import type { GrowthKnown } from '$lib/workers/growth';
  import { rememberedMode } from '$lib/ui/mode.svelte';
  import { chartTheme } from '$lib/ui/chart-theme';
  import type { DriftMoment } from './drift-along';
  import { workTime } from './words';

  // Anchors, and mean drift where it was measured, over the time at work.
  let { known, drift }: { known: GrowthKnown; drift: readonly DriftMoment[] | null } = $props();
  Chart.register(LineController, LineElement, LinearScale, PointElement);

  /** Points that are charted of the anchors. */
  const MOST_POINTS = 300;
  /** Less work than this is told by changes, not by time, milliseconds. */
  const LEAST_WORK_MS = 20_000;
  const byTime = $derived(known.workMs[known.count]! >= LEAST_WORK_MS);
  const xOf = (changes: number): number => (byTime ? known.workMs[changes]! / 60_000 : changes);
  const anchors = $derived.by(() => {
    const each = Math.max(1, Math.ceil(known.count / MOST_POINTS));
    const at = Array.from({ length: Math.floor(known.count / each) + 1 }, (_, i) => i * each);
    if (at.at(-1) !== known.count) at.push(known.count);
    return at.map((changes) => ({ x: xOf(changes), y: known.anchors[changes]! }));
  });
  const drifts = $derived(
    (drift ?? [])
      .filter(({ mean }) => !Number.isNaN(mean))
      .map(({ changes, mean }) => ({ x: xOf(changes), y: mean })),
  );
  let canvas: HTMLCanvasElement | undefined = $state();
  $effect(() => {
    if (!canvas) return;
    void rememberedMode.value;
    const { colours, measured, options } = chartTheme();
    const line = (data: { x: number; y: number }[], colour: string, yAxisID: string) => ({ data, borderColor: colour, backgroundColor: colour, borderWidth: 1.75, pointRadius: data.length < 20 ? 2 : 0, yAxisID }); // prettier-ignore
    const chart = new Chart(canvas, {
      type: 'line',
      data: {
        datasets: [line(anchors, colours.leaf, 'y'), ...(drifts.length > 0 ? [line(drifts, colours.plum, 'drift')] : [])],
      },
      options: {
        ...options,
        scales: {
          x: { ...measured, type: 'linear', min: 0, max: xOf(known.count), ticks: { ...measured.ticks, maxTicksLimit: 5, callback: (v) => (byTime ? `${v} min` : v) } },
          y: { ...measured, beginAtZero: true, ticks: { ...measured.ticks, precision: 0, maxTicksLimit: 5 } },
          ...(drifts.length > 0 ? { drift: { ...measured, grid: { display: false }, position: 'right', beginAtZero: true, ticks: { ...measured.ticks, maxTicksLimit: 5, callback: (v) => `${v} px` } } } : {}),
        },
      },
    }); // prettier-ignore
    return () => chart.destroy();
  });
</script>

<div class="chart"><canvas bind:this={canvas} aria-hidden="true"></canvas></div>
<p class="legend quiet">
  <span class="anchors"></span> anchors, over {byTime ? 'the time at work' : 'the changes'}
  {#if drifts.length > 0}<span class="drift"></span> mean drift{/if}
</p>
<p class="sr-only">
  {known.anchors[known.count]} anchors after {known.count} changes and {workTime(known.workMs[known.count]!)} of
  work.
  {#if drifts.length > 0}Mean drift at the end {drifts.at(-1)!.y.toFixed(2)} px.{/if}
</p>

<style>
  .chart {
    height: 130px;
  }
  .legend {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 6px;
    margin: 0;
    font-size: 12px;
  }
  .legend span {
    width: 10px;
    height: 10px;
    background: var(--leaf);
  }
  .legend .drift {
    background: var(--plum);
  }
</style>
