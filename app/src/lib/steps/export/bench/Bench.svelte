<script lang="ts">
  import Pause from '@lucide/svelte/icons/pause';
  import Play from '@lucide/svelte/icons/play';
  import { placeAt, type Played } from '@mirrot/core';
  import { untrack } from 'svelte';
  import { MediaQuery } from 'svelte/reactivity';
  import { DrawnView, MARGIN_PX } from '$lib/bed/drawn-view.svelte';
  import PanArea from '$lib/bed/PanArea.svelte';
  import { withProgress } from '$lib/desk/progress';
  import { fitted, moveBetween, toBed } from '$lib/desk/view';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import { rememberedMode } from '$lib/ui/mode.svelte';
  import { clock } from './words';
  import BenchFigures from './BenchFigures.svelte';
  import { fileWorker, type LinesMade } from '$lib/workers/files';
  import { onSheet } from '$lib/workers/on-sheet';
  import { benchLines, paintBench, placeBetween } from './painting';

  // The machine seen from above, playing the very file that would be written.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const { looking } = $derived(desk);
  const made = $derived(workplace.lineMaking.made);
  const machine = $derived(workplace.exporting.machine);
  const drawn = new DrawnView(untrack(() => workplace.desk.looking));
  const moved = $derived(moveBetween(drawn.view, looking.view));

  /** The file that is played, and how many times as large as on the sheet it is. */
  interface Playing {
    readonly of: LinesMade;
    readonly played: Played;
    readonly scale: number;
  }
  let playing = $state.raw<Playing | null>(null);
  let trouble = $state<string | null>(null);
  /** Seconds of the machine's own time. */
  let now = $state(0);
  let runs = $state(false);
  let fast = $state(1);
  let showsTravel = $state(true);

  const SPEEDS = [1, 4, 16, 64, 256] as const;
  /** A whole file is played in about so long at first, seconds. */
  const PLAYED_IN_S = 12;
  /** Room that the machine's table takes about what is written, and the bars above and below it; screen pixels. */
  const ROOM_PX = 26;
  const BARS_PX = 52;

  $effect(() => {
    const file = made;
    const by = $state.snapshot(machine);
    if (!file?.plot) return void (playing = null);
    const { text } = file.plot;
    const { scale } = untrack(() => workplace.exporting);
    trouble = null;
    let wanted = true;
    void untrack(() =>
      withProgress(workplace, 'Playing the file', fileWorker.end, () =>
        fileWorker.ask((work) => work.play(text, by)),
      ),
    ).then((played) => {
      if (!wanted) return;
      if (!played)
        return void (trouble = 'The file was not played. Change something, or open the bench again.');
      const first = !playing;
      playing = { of: file, played, scale };
      if (first) fast = SPEEDS.find((speed) => played.seconds / speed <= PLAYED_IN_S) ?? SPEEDS.at(-1)!;
      now = first ? 0 : Math.min(now, played.seconds);
      if (first) looking.jump(fitted(file.written, looking.bed, ROOM_PX + BARS_PX));
    });
    return () => (wanted = false);
  });

  const seconds = $derived(playing?.played.seconds ?? 0);
  const lines = $derived(playing && benchLines(playing.played, onSheet(playing.of.written, playing.scale)));
  const index = $derived(playing ? placeAt(playing.played.motion, now) : 0);
  const head = $derived(playing && lines ? placeBetween(lines, playing.played.motion, index, now) : null);
  const last = $derived(lines && { x: lines.places[2 * index]!, y: lines.places[2 * index + 1]! });
  const isDown = $derived(!!lines && lines.down[index + 1] === 1);
  /** The crowded places, on the sheet. */
  const crowded = $derived.by(() => {
    if (!playing) return [];
    const at = onSheet(playing.of.written, playing.scale);
    return playing.played.crowded.map((one) => at(one.at));
  });

  // One frame after another while it runs.
  $effect(() => {
    if (!runs) return;
    let before = performance.now();
    let frame = requestAnimationFrame(function step(at) {
      const then = now + ((at - before) / 1000) * fast;
      before = at;
      if (then >= seconds) {
        now = seconds;
        runs = false;
        return;
      }
      now = then;
      frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  });
  function play(): void {
    if (!runs && now >= seconds) now = 0;
    runs = !runs;
  }

  const systemDark = new MediaQuery('prefers-color-scheme: dark');
  const theme = $derived(`${rememberedMode.value} ${systemDark.current}`);
  let canvas: HTMLCanvasElement | undefined = $state();
  /** What the canvas shows: painted on from there, or anew. */
  let painted: { lines: unknown; view: unknown; travel: boolean; theme: unknown; width: number; height: number; to: number } | null = null; // prettier-ignore
  const size = $derived({
    width: looking.bed.width + 2 * MARGIN_PX,
    height: looking.bed.height + 2 * MARGIN_PX,
  });
  $effect(() => {
    const context = canvas?.getContext('2d');
    if (!canvas || !context || !lines) return;
    const dpr = window.devicePixelRatio || 1;
    const { width, height } = size;
    const same =
      painted !== null && painted.lines === lines && painted.view === drawn.view && painted.travel === showsTravel && painted.theme === theme && painted.width === width && painted.height === height && painted.to <= index; // prettier-ignore
    const style = getComputedStyle(canvas);
    if (!same) {
      canvas.width = width * dpr;
      canvas.height = height * dpr;
      context.scale(dpr, dpr);
    }
    const view = { ...drawn.view, tx: drawn.view.tx + MARGIN_PX, ty: drawn.view.ty + MARGIN_PX };
    const colours = { ink: style.getPropertyValue('--text'), travel: style.getPropertyValue('--quiet'), doubled: style.getPropertyValue('--brick') }; // prettier-ignore
    paintBench(context, lines, view, [same ? painted!.to : 0, index], colours, showsTravel);
    painted = { lines, view: drawn.view, travel: showsTravel, theme, width, height, to: index };
  });

  /** What is written, on the screen. */
  const plate = $derived.by(() => {
    if (!playing) return null;
    const { x0, y0, x1, y1 } = playing.of.written;
    const [a, b] = [toBed(looking.view, { x: x0, y: y0 }), toBed(looking.view, { x: x1, y: y1 })];
    return { x: a.x, y: a.y, width: b.x - a.x, height: b.y - a.y };
  });
  const pen = $derived(head && toBed(looking.view, head));
  const before = $derived(last && toBed(looking.view, last));
  /** Where a knife was led since it was put down: what it leaves is painted once the cut is whole. */
  const led = $derived.by(() => {
    if (!lines?.cut || !isDown) return '';
    let from = index;
    while (from > 0 && lines.down[from] === 1 && lines.strokes[from] === lines.strokes[index + 1]) from--;
    const points: string[] = [];
    for (let i = from; i <= index; i++) {
      const p = toBed(looking.view, { x: lines.places[2 * i]!, y: lines.places[2 * i + 1]! });
      points.push(`${p.x.toFixed(1)},${p.y.toFixed(1)}`);
    }
    return points.join(' ');
  });
</script>

<section class="bench" aria-label="Bench">
  <PanArea {desk}>
    <svg class="under" aria-hidden="true">
      {#if plate}
        <rect
          class="plate"
          x={plate.x - ROOM_PX}
          y={plate.y - ROOM_PX}
          width={plate.width + 2 * ROOM_PX}
          height={plate.height + 2 * ROOM_PX}
          rx="6"
        />
        <rect class="sheet" {...plate} />
      {/if}
    </svg>
    <div
      class="moving"
      style:transform="translate({moved.x - MARGIN_PX * moved.scale}px, {moved.y - MARGIN_PX * moved.scale}px)
      scale({moved.scale})"
    >
      <canvas
        bind:this={canvas}
        aria-hidden="true"
        style:width="{size.width}px"
        style:height="{size.height}px"
      ></canvas>
    </div>
    <svg class="over" aria-hidden="true">
      {#each crowded as place, i (i)}
        {@const p = toBed(looking.view, place)}
        <circle class="crowded" cx={p.x} cy={p.y} r="9" />
      {/each}
      {#if plate && pen}
        {#if led}<polyline class="led" points={led} />{/if}
        {#if isDown && before}<line class="led" x1={before.x} y1={before.y} x2={pen.x} y2={pen.y} />{/if}
        <rect
          class="rail"
          x={pen.x - 5}
          y={plate.y - ROOM_PX}
          width="10"
          height={plate.height + 2 * ROOM_PX}
        />
        <rect class="carriage" x={pen.x - 12} y={pen.y - 12} width="24" height="24" rx="5" />
        <circle class="tip" class:down={isDown} cx={pen.x} cy={pen.y} r={isDown ? 3.5 : 5} />
      {/if}
    </svg>
  </PanArea>
  <div class="figures">
    {#if trouble ?? workplace.lineMaking.trouble}
      <p>{trouble ?? workplace.lineMaking.trouble}</p>
    {:else if playing}
      <BenchFigures played={playing.played} {machine} />
    {:else}
      <p>The file is being made ready.</p>
    {/if}
  </div>
  <div class="foot">
    <button class="plain-button" onclick={play} disabled={!playing}>
      {#if runs}<Pause size={16} strokeWidth={1.75} />Pause{:else}<Play
          size={16}
          strokeWidth={1.75}
        />Play{/if}
    </button>
    <input
      type="range"
      aria-label="Time on the bench"
      aria-valuetext="{clock(now)} of {clock(seconds)}"
      min="0"
      max={seconds || 1}
      step="any"
      value={now}
      disabled={!playing}
      oninput={(e) => {
        runs = false;
        now = Number(e.currentTarget.value);
      }}
    />
    <span class="time">{clock(now)} of {clock(seconds)}</span>
    <select aria-label="Speed of playing" bind:value={fast}>
      {#each SPEEDS as speed (speed)}<option value={speed}>{speed} ×</option>{/each}
    </select>
    <span class="travel"><Toggle label="Travel" on={showsTravel} change={(on) => (showsTravel = on)} /></span>
  </div>
</section>

<style>
  .bench {
    position: absolute;
    inset: 0;
    display: flex;
    flex-direction: column;
    background: var(--desk);
  }
  .under,
  .over {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    pointer-events: none;
  }
  .moving {
    position: absolute;
    top: 0;
    left: 0;
    transform-origin: 0 0;
    will-change: transform;
  }
  canvas {
    display: block;
  }
  .plate {
    fill: var(--ledge);
    stroke: var(--line);
  }
  .sheet {
    fill: var(--paper);
    stroke: var(--line);
  }
  .rail {
    fill: color-mix(in srgb, var(--quiet) 22%, transparent);
    stroke: var(--quiet);
  }
  .carriage {
    fill: color-mix(in srgb, var(--paper) 55%, transparent);
    stroke: var(--quiet);
    stroke-width: 1.5;
  }
  .tip {
    fill: var(--paper);
    stroke: var(--carrot);
    stroke-width: 2;
  }
  .tip.down {
    fill: var(--carrot);
  }
  .led {
    fill: none;
    stroke: var(--carrot);
    stroke-width: 1.5;
  }
  .crowded {
    fill: none;
    stroke: var(--brick);
    stroke-width: 2;
  }
  .figures {
    position: relative;
    max-width: 100%;
    padding: 6px 12px;
    border-bottom: 1px solid var(--line);
    background: var(--paper);
  }
  p {
    margin: 2px 0;
  }
  .foot {
    position: relative;
    display: flex;
    align-items: center;
    gap: 10px;
    margin-top: auto;
    padding: 6px 12px;
    border-top: 1px solid var(--line);
    background: var(--paper);
  }
  .foot input {
    flex: 1;
    min-width: 60px;
    accent-color: var(--carrot);
  }
  .travel {
    flex: none;
    width: 92px;
  }
  .time {
    font-variant-numeric: tabular-nums;
    white-space: nowrap;
  }
</style>
