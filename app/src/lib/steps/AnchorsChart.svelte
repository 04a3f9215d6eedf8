<script lang="ts">
  import { BarController, BarElement, CategoryScale, Chart, LinearScale } from 'chart.js';
  import type { Shape } from '@mirrot/core';
  import { chooseShapes } from '$lib/desk/choice';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { rememberedMode } from '$lib/ui/mode.svelte';
  import { chartTheme } from '$lib/ui/chart-theme';

  // Anchors of each shape, beside the fewest where they are known: those with most to gain first, then those with most. A click chooses the shape.
  interface Props {
    desk: Desk;
    costs: readonly { readonly shape: Shape; readonly anchors: number; readonly fewest: number | null }[];
  }
  let { desk, costs }: Props = $props();
  Chart.register(BarController, BarElement, CategoryScale, LinearScale);

  /** Shapes that are charted, and pixels for each. */
  const MOST = 10;
  const ROW = 24;
  const gain = ({ anchors, fewest }: Props['costs'][number]): number => anchors - (fewest ?? anchors);
  const known = $derived(costs.some(({ fewest }) => fewest !== null));
  const shown = $derived(costs.toSorted((a, b) => gain(b) - gain(a) || b.anchors - a.anchors).slice(0, MOST));
  const summary = $derived(
    known ? 'Anchors of each shape beside the fewest that hold the edge' : 'Anchors of each shape',
  );
  const short = (name: string): string => (name.length > 12 ? `${name.slice(0, 11)}…` : name);

  let canvas: HTMLCanvasElement | undefined = $state();
  let chart: Chart | null = null;
  $effect(() => {
    if (!canvas) return;
    // Drawn anew when the theme changes.
    void rememberedMode.value;
    const { colours, measured, named, options } = chartTheme();
    const bars = (label: string, data: number[], backgroundColor: string) => ({ label, data, backgroundColor, barPercentage: 0.9, categoryPercentage: 0.75 }); // prettier-ignore
    chart = new Chart(canvas, {
      type: 'bar',
      data: {
        labels: shown.map((c) => short(c.shape.name)),
        datasets: [
          bars('anchors', shown.map((c) => c.anchors), colours.plum),
          ...(known ? [bars('fewest', shown.map((c) => c.fewest ?? 0), colours.leaf)] : []),
        ],
      },
      options: {
        ...options,
        indexAxis: 'y',
        scales: { x: { ...measured, beginAtZero: true, ticks: { ...measured.ticks, precision: 0, maxTicksLimit: 5 } }, y: named },
      },
    }); // prettier-ignore
    return () => chart?.destroy();
  });
</script>

<div class="chart" style:height="{28 + ROW * shown.length}px">
  <canvas bind:this={canvas} aria-hidden="true"></canvas>
  <ul aria-label={summary} style:height="{ROW * shown.length}px">
    {#each shown as { shape, anchors, fewest } (shape.id)}
      <li>
        <button
          aria-label="Choose {shape.name}: {anchors} anchors{fewest === null
            ? ''
            : `, ${fewest} would hold the edge`}"
          onclick={() => desk.choose(chooseShapes([shape.id], 'path'))}
        ></button>
      </li>
    {/each}
  </ul>
</div>
<p class="legend">
  <span class="own"></span> anchors{#if known}<span class="fewest"></span> fewest that hold the edge{/if}
</p>

<style>
  .chart {
    position: relative;
  }
  ul {
    position: absolute;
    top: 2px;
    right: 0;
    left: 0;
    display: flex;
    flex-direction: column;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    flex: 1;
  }
  li > button {
    width: 100%;
    height: 100%;
    border-radius: 4px;
  }
  li > button:hover {
    background: color-mix(in srgb, var(--plum) 12%, transparent);
  }
  .legend {
    display: flex;
    align-items: center;
    gap: 6px;
    margin: 0;
    color: var(--quiet);
    font-size: 12px;
  }
  .legend span {
    width: 10px;
    height: 10px;
    background: var(--plum);
  }
  .legend .fewest {
    margin-left: 8px;
    background: var(--leaf);
  }
</style>
