<script lang="ts">
  import { BarController, BarElement, CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js'; // prettier-ignore
  import { fromPx, meanScale } from '@mirrot/core';
  import { untrack } from 'svelte';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { ShapeDrift } from '$lib/desk/drifts.svelte';
  import { entryOnBed } from '$lib/bed/whiskers';
  import Segments from '$lib/ui/Segments.svelte';
  import { rememberedMode } from '$lib/ui/mode.svelte';
  import { chartTheme } from '$lib/ui/chart-theme';

  // Drift along a shape's paths, its anchors as ticks; or how often each drift is found. Pointing at the chart points on
  // the bed, and pointing at the path points at the chart.
  let { desk, shape: now }: { desk: Desk; shape: ShapeDrift } = $props();
  /** What is charted: while something is dragged, what it was before, so that the hand has the frame to itself. */
  let shape = $state.raw(untrack(() => now));
  $effect(() => {
    if (!desk.pointing.pressing || now.shape.id !== shape.shape.id) shape = now;
  });
  Chart.register(
    LineController,
    LineElement,
    PointElement,
    LinearScale,
    BarController,
    BarElement,
    CategoryScale,
  );

  let kind: 'along' | 'spread' = $state('along');
  let canvas: HTMLCanvasElement | undefined = $state();

  interface Entry {
    readonly part: number;
    readonly entry: number;
    /** Length up to here, picture pixels, and the drift; null where there is none. */
    readonly x: number;
    readonly y: number | null;
    /** Something lies over it. */
    readonly covered: boolean;
  }
  const entries = $derived.by((): Entry[] => {
    let x = 0;
    return shape.parts.flatMap(({ drift }, part) =>
      Array.from(drift.value, (v, entry): Entry => {
        x += drift.weight[entry]!;
        return { part, entry, x, y: Number.isNaN(v) ? null : v, covered: drift.covered[entry] === 1 };
      }),
    );
  });
  /** Where anchors stand along it: where the segment changes. */
  const ticks = $derived(
    entries.flatMap((e, i) => {
      const before = entries[i - 1];
      const drift = shape.parts[e.part]!.drift;
      const begins =
        !before || before.part !== e.part || drift.segment[e.entry] !== drift.segment[e.entry - 1];
      return begins ? [e.x] : [];
    }),
  );
  const BINS = 24;
  const spread = $derived.by(() => {
    const measured = entries.flatMap((e) => (e.y === null ? [] : [e.y]));
    const far = Math.max(desk.habits.driftWithin, ...measured.map(Math.abs));
    const counts = new Array<number>(BINS).fill(0);
    for (const v of measured) counts[Math.min(BINS - 1, Math.floor(((v + far) / (2 * far)) * BINS))]!++;
    return {
      labels: counts.map((_, i) => (((i + 0.5) / BINS) * 2 * far - far).toFixed(1)),
      counts: counts.map((c) => (100 * c) / Math.max(1, measured.length)),
    };
  });
  const spreadInWords = $derived(
    `How often each drift is found: ${spread.counts.flatMap((c, i) => (c >= 1 ? [`${spread.labels[i]} px ${Math.round(c)} %`] : [])).join(', ')}`,
  );
  const summary = $derived(
    `Drift along ${shape.shape.name}: mean ${shape.figures.mean.toFixed(2)} px, worst ${shape.figures.worst.toFixed(2)} px`,
  );
  let chart: Chart | null = null;
  $effect(() => {
    if (!canvas) return;
    // Drawn anew when the theme changes.
    void rememberedMode.value;
    const { colours, measured, named, options } = chartTheme();
    const { quiet, plum, brick } = colours;
    const within = desk.habits.driftWithin;
    const marks = {
      id: 'marks',
      afterDatasetsDraw({ ctx, chartArea, scales }: Chart) {
        if (kind !== 'along') return;
        ctx.save();
        ctx.strokeStyle = quiet;
        for (const x of ticks) {
          const at = scales.x!.getPixelForValue(x);
          ctx.beginPath();
          ctx.moveTo(at, chartArea.bottom);
          ctx.lineTo(at, chartArea.bottom - 6);
          ctx.stroke();
        }
        ctx.strokeStyle = brick;
        ctx.setLineDash([3, 3]);
        for (const v of [within, -within]) {
          const at = scales.y!.getPixelForValue(v);
          ctx.beginPath();
          ctx.moveTo(chartArea.left, at);
          ctx.lineTo(chartArea.right, at);
          ctx.stroke();
        }
        const pointed = entries.find(
          (e) => e.part === desk.picture.driftAt?.part && e.entry === desk.picture.driftAt.entry,
        );
        if (pointed && desk.picture.driftAt?.shape === shape.shape.id) {
          ctx.setLineDash([]);
          ctx.strokeStyle = plum;
          const at = scales.x!.getPixelForValue(pointed.x);
          ctx.beginPath();
          ctx.moveTo(at, chartArea.top);
          ctx.lineTo(at, chartArea.bottom);
          ctx.stroke();
        }
        ctx.restore();
      },
    };
    const y = { ...measured, ticks: { ...measured.ticks, maxTicksLimit: 4 } };
    const x = { ...named, ticks: { ...named.ticks, maxTicksLimit: 4, precision: 0 } };
    chart =
      kind === 'along'
        ? new Chart(canvas, {
            type: 'line',
            data: { datasets: [{ data: entries.map((e) => ({ x: e.x, y: e.y ?? NaN })), borderColor: plum, borderWidth: 1.5, pointRadius: 0, spanGaps: false, parsing: false }, { data: entries.map((e) => ({ x: e.x, y: e.covered ? 0 : NaN })), borderColor: quiet, borderWidth: 5, pointRadius: 0, spanGaps: false, parsing: false }] },
            options: { ...options, scales: { x: { ...x, type: 'linear', max: Math.ceil(entries.at(-1)?.x ?? 1) }, y: { ...y, suggestedMin: -1.5 * within, suggestedMax: 1.5 * within } } },
            plugins: [marks],
          }) // prettier-ignore
        : new Chart(canvas, {
            type: 'bar',
            data: { labels: spread.labels, datasets: [{ data: spread.counts, backgroundColor: plum, barPercentage: 1, categoryPercentage: 0.9 }] },
            options: { ...options, scales: { x: { ...x, type: 'category' }, y: { ...y, type: 'linear' } } },
          }); // prettier-ignore
    return () => chart?.destroy();
  });
  // The line that points is drawn anew when it moves.
  $effect(() => {
    void desk.picture.driftAt;
    chart?.draw();
  });

  function pointAt(e: PointerEvent): void {
    const scale = chart?.scales.x;
    if (!scale || kind !== 'along' || entries.length === 0) return;
    const x = scale.getValueForPixel(e.offsetX) ?? 0;
    const near = entries.reduce((a, b) => (Math.abs(b.x - x) < Math.abs(a.x - x) ? b : a));
    desk.picture.driftAt = { shape: shape.shape.id, part: near.part, entry: near.entry };
  }
  const pointedAt = $derived(
    entries.findIndex(
      (e) =>
        desk.picture.driftAt?.shape === shape.shape.id &&
        e.part === desk.picture.driftAt.part &&
        e.entry === desk.picture.driftAt.entry,
    ),
  );
  /** Entries that an arrow goes on by with Shift. */
  const FAR = 20;
  function keydown(e: KeyboardEvent): void {
    const step = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key];
    const last = entries.length - 1;
    const to = step
      ? Math.min(last, Math.max(0, Math.max(0, pointedAt) + step * (e.shiftKey ? FAR : 1)))
      : { Home: 0, End: last }[e.key];
    const entry = to === undefined ? undefined : entries[to];
    if (!entry) return;
    e.preventDefault();
    desk.picture.driftAt = { shape: shape.shape.id, part: entry.part, entry: entry.entry };
  }
  /** Bed pixels within which the pointer points at the chart. */
  const NEAR = 14;
  $effect(() => {
    const p = desk.pointing.pointerAt;
    if (!p || desk.pointing.pressing) return;
    let best: { part: number; entry: number; far: number } | null = null;
    shape.parts.forEach((part, k) => {
      for (let i = 0; i < part.drift.value.length; i += 2) {
        const { at } = entryOnBed(part, shape.step, i, desk.looking.view);
        const far = Math.hypot(at.x - p.x, at.y - p.y);
        if (far < NEAR && (!best || far < best.far)) best = { part: k, entry: i, far };
      }
    });
    const found = best as { part: number; entry: number } | null;
    if (found) desk.picture.driftAt = { shape: shape.shape.id, part: found.part, entry: found.entry };
  });
  const said = $derived.by((): string => {
    const at = desk.picture.driftAt?.shape === shape.shape.id ? desk.picture.driftAt : null;
    const v = at ? shape.parts[at.part]?.drift.value[at.entry] : undefined;
    if (v === undefined) return 'Point at the chart or at the line.';
    if (Number.isNaN(v)) return 'No edge there.';
    const k = desk.picture.traced ? meanScale(desk.picture.traced.placement) : 1;
    const unit = desk.art.sheet.unit;
    return `${v.toFixed(2)} px there (${fromPx(v * k, unit).toFixed(3)} ${unit})`;
  });
</script>

<Segments
  label="Chart"
  value={kind}
  options={[
    ['along', 'along the line'],
    ['spread', 'how often'],
  ] as const}
  change={(k) => (kind = k)}
/>
{#if kind === 'along'}
  <!-- By keys it is walked like a slider: each place says its drift, and shows on the bed. -->
  <div
    class="chart"
    role="slider"
    tabindex="0"
    aria-label={summary}
    aria-valuemin={0}
    aria-valuemax={Math.max(0, entries.length - 1)}
    aria-valuenow={Math.max(0, pointedAt)}
    aria-valuetext={said}
    onkeydown={keydown}
  >
    <canvas bind:this={canvas} aria-hidden="true" onpointermove={pointAt}></canvas>
  </div>
{:else}
  <div class="chart" role="img" aria-label={spreadInWords}>
    <canvas bind:this={canvas} aria-hidden="true"></canvas>
  </div>
{/if}
<p class="quiet small">{kind === 'along' ? said : 'Share of the length in percent, by drift in px.'}</p>

<style>
  .chart {
    position: relative;
    height: 120px;
  }
  .small {
    font-size: 12px;
  }
</style>
