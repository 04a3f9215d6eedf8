<script lang="ts">
  import { BarController, BarElement, CategoryScale, Chart, LinearScale } from 'chart.js';
  import { chooseShapes } from '$lib/desk/choice';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { ShapeEconomy } from '$lib/desk/drifts.svelte';
  import { rememberedMode } from '$lib/ui/mode.svelte';

  // Anchors of each shape beside the fewest, those with most to gain first. A click chooses the shape.
  let { desk, costs }: { desk: Desk; costs: readonly ShapeEconomy[] } = $props();
  Chart.register(BarController, BarElement, CategoryScale, LinearScale);

  /** Shapes that are charted, and pixels for each. */
  const MOST = 10;
  const ROW = 24;
  const shown = $derived(
    costs.toSorted((a, b) => b.anchors - b.fewest - (a.anchors - a.fewest)).slice(0, MOST),
  );
  const summary = $derived(
    `Anchors of each shape beside the fewest: ${shown.map((c) => `${c.shape.name} ${c.anchors}, ${c.fewest}`).join('; ')}`,
  );
  const colour = (name: string): string =>
    getComputedStyle(document.documentElement).getPropertyValue(name).trim() || '#555';
  const short = (name: string): string => (name.length > 12 ? `${name.slice(0, 11)}…` : name);

  let canvas: HTMLCanvasElement | undefined = $state();
  let chart: Chart | null = null;
  $effect(() => {
    if (!canvas) return;
    // Drawn anew when the theme changes.
    void rememberedMode.value;
    const [quiet, line, plum, leaf] = ['--quiet', '--line', '--plum', '--leaf'].map(colour) as [string, string, string, string]; // prettier-ignore
    const font = { family: 'Atkinson Hyperlegible Next Variable, sans-serif', size: 11 };
    const bars = (label: string, data: number[], backgroundColor: string) => ({ label, data, backgroundColor, barPercentage: 0.9, categoryPercentage: 0.75 }); // prettier-ignore
    chart = new Chart(canvas, {
      type: 'bar',
      data: {
        labels: shown.map((c) => short(c.shape.name)),
        datasets: [
          bars('anchors', shown.map((c) => c.anchors), plum),
          bars('fewest', shown.map((c) => c.fewest), leaf),
        ],
      },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        indexAxis: 'y',
        plugins: { legend: { display: false }, tooltip: { enabled: false } },
        onClick: (_e, hits) => {
          const at = hits[0]?.index;
          if (at !== undefined && shown[at]) desk.choose(chooseShapes([shown[at].shape.id], 'path'));
        },
        scales: {
          x: { beginAtZero: true, grid: { color: line }, border: { display: false }, ticks: { color: quiet, font, precision: 0, maxTicksLimit: 5 } },
          y: { grid: { display: false }, border: { color: line }, ticks: { color: quiet, font } },
        },
      },
    }); // prettier-ignore
    return () => chart?.destroy();
  });
</script>

<div class="chart" role="img" aria-label={summary} style:height="{28 + ROW * shown.length}px">
  <canvas bind:this={canvas} aria-hidden="true"></canvas>
</div>
<p class="key"><span class="own"></span> anchors <span class="fewest"></span> fewest that hold the edge</p>

<style>
  .chart {
    position: relative;
  }
  .key {
    display: flex;
    align-items: center;
    gap: 6px;
    margin: 0;
    color: var(--quiet);
    font-size: 12px;
  }
  .key span {
    width: 10px;
    height: 10px;
    background: var(--plum);
  }
  .key .fewest {
    margin-left: 8px;
    background: var(--leaf);
  }
</style>
