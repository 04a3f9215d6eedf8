<script lang="ts">
  import { CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
  import { chartTheme } from '$lib/ui/chart-theme';
  import { rememberedMode } from '$lib/ui/mode.svelte';
  import type { Attempt } from '$lib/wire-practice';
  import { px } from './words';

  // How near each attempt came, in their order: the mean, and what 95 % lies within.
  let { attempts }: { attempts: readonly Attempt[] } = $props();
  Chart.register(CategoryScale, LinearScale, LineController, LineElement, PointElement);

  let canvas: HTMLCanvasElement | undefined = $state();
  $effect(() => {
    if (!canvas) return;
    // Drawn anew when the theme changes.
    void rememberedMode.value;
    const { colours, measured, named, options } = chartTheme();
    const line = (label: string, data: number[], colour: string, dash: number[]) => ({ label, data, borderColor: colour, backgroundColor: colour, borderDash: dash, borderWidth: 2, pointRadius: 4 }); // prettier-ignore
    const chart = new Chart(canvas, {
      type: 'line',
      data: {
        labels: attempts.map((_, i) => String(i + 1)),
        datasets: [
          line('mean', attempts.map(({ score }) => score.mean), colours.leaf, []),
          line('95 %', attempts.map(({ score }) => score.p95), colours.plum, [5, 4]),
        ],
      },
      options: {
        ...options,
        scales: { x: named, y: { ...measured, beginAtZero: true, ticks: { ...measured.ticks, maxTicksLimit: 5 } } },
      },
    }); // prettier-ignore
    return () => chart.destroy();
  });
  const told = $derived(attempts.map(({ score }, i) => `${i + 1}: ${px(score.mean)}`).join(', '));
</script>

<div class="chart" role="img" aria-label="Mean distance of each attempt, {told}">
  <canvas bind:this={canvas} aria-hidden="true"></canvas>
</div>
<p class="quiet"><span class="mean"></span> mean <span class="p95"></span> 95 % within, px of the picture</p>

<style>
  .chart {
    height: 130px;
  }
  p {
    display: flex;
    align-items: center;
    gap: 6px;
    margin: 0;
    font-size: 13px;
  }
  span {
    width: 16px;
    border-top: 2px solid var(--leaf);
  }
  .p95 {
    margin-left: 8px;
    border-top: 2px dashed var(--plum);
  }
</style>
