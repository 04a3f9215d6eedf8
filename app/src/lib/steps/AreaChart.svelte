<script lang="ts">
  import { untrack } from 'svelte';
  import { areaByColour, type ColourShare } from '@mirrot/core';
  import { BarController, BarElement, CategoryScale, Chart, LinearScale } from 'chart.js';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { chooseByFill } from '$lib/edits/choosing-kin';
  import { rememberedMode } from '$lib/ui/mode.svelte';
  import { chartTheme } from '$lib/ui/chart-theme';

  // How much of what is filled shows each colour. A press chooses the shapes of that fill.
  let { desk }: { desk: Desk } = $props();
  Chart.register(BarController, BarElement, CategoryScale, LinearScale);

  /** Colours that are charted, and pixels for each. */
  const MOST = 12;
  const ROW = 24;
  /** So long after the last change the areas are counted, milliseconds: among thousands of shapes that takes a while. */
  const RESTS_MS = 400;
  let areas: readonly ColourShare[] = $state.raw(
    untrack(() => areaByColour(desk.drawing.kept).slice(0, MOST)),
  );
  $effect(() => {
    const { kept } = desk.drawing;
    const timer = setTimeout(() => (areas = areaByColour(kept).slice(0, MOST)), RESTS_MS);
    return () => clearTimeout(timer);
  });
  const percent = (share: number): string => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;
  const nameOf = (hex: string): string =>
    desk.art.chips.find((c) => c.hex === hex)?.name || hex.toUpperCase();
  let canvas: HTMLCanvasElement | undefined = $state();
  $effect(() => {
    if (!canvas) return;
    void rememberedMode.value;
    const { colours, measured, named, options } = chartTheme();
    const chart = new Chart(canvas, {
      type: 'bar',
      data: {
        labels: areas.map(({ hex }) => (nameOf(hex).length > 11 ? `${nameOf(hex).slice(0, 10)}…` : nameOf(hex))),
        datasets: [{ data: areas.map(({ share }) => 100 * share), backgroundColor: areas.map(({ hex }) => hex), borderColor: colours.quiet, borderWidth: 1, barPercentage: 0.8 }],
      },
      options: {
        ...options,
        indexAxis: 'y',
        scales: { x: { ...measured, beginAtZero: true, ticks: { ...measured.ticks, maxTicksLimit: 4, callback: (v) => `${v} %` } }, y: named },
      },
    }); // prettier-ignore
    return () => chart.destroy();
  });
</script>

{#if areas.length > 0}
  <p class="quiet">Area by colour, of all that is filled</p>
  <div class="chart" style:height="{28 + ROW * areas.length}px">
    <canvas bind:this={canvas} aria-hidden="true"></canvas>
    <ul aria-label="Area by colour" style:height="{ROW * areas.length}px">
      {#each areas as { hex, share } (hex)}
        <li>
          <button
            aria-label="Choose the shapes of {nameOf(hex)}, {percent(share)} of the area"
            onclick={() => chooseByFill(desk, hex)}
          ></button>
        </li>
      {/each}
    </ul>
  </div>
{/if}

<style>
  p {
    font-size: 12.5px;
  }
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
</style>
