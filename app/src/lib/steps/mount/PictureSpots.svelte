<script lang="ts">
  import { innerWidth } from 'svelte/reactivity/window';
  import type { Point, Raster } from '@mirrot/core';

  interface Props {
    label: string;
    /** The picture's pixels, in whatever size. */
    raster: Raster;
    image: ImageBitmap;
    /** Pixels of the picture itself that one of the raster's is wide. */
    step: number;
    /** Spots to be moved, in the picture's own pixels. */
    spots: readonly Point[];
    names: readonly string[];
    width: number;
    height: number;
    move: (index: number, to: Point) => void;
    /** More to draw over the picture: SVG path data in the picture's own pixels. */
    over?: string;
  }
  let { label, raster, image, step, spots, names, width, height, move, over }: Props = $props();

  const REACH = 14;
  const ENLARGED = 6;
  const own = $derived({ width: raster.width * step, height: raster.height * step });
  /** What a dialog leaves free at either side, pixels. */
  const BESIDE_PX = 64;
  const room = $derived(Math.min(width, (innerWidth.current ?? width) - BESIDE_PX));
  const k = $derived(Math.min(room / own.width, height / own.height));
  let active = $state(0);
  let held = $state(false);
  let focused = $state(false);
  let frame: HTMLElement | undefined = $state();
  let canvas: HTMLCanvasElement | undefined = $state();
  let loupe: HTMLCanvasElement | undefined = $state();

  $effect(() => {
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    canvas.width = Math.round(own.width * k * devicePixelRatio);
    canvas.height = Math.round(own.height * k * devicePixelRatio);
    context.drawImage(image, 0, 0, canvas.width, canvas.height);
  });
  $effect(() => {
    const context = loupe?.getContext('2d');
    const at = spots[active];
    if (!loupe || !context || !at) return;
    const size = loupe.width;
    const part = size / ENLARGED / step;
    context.imageSmoothingEnabled = false;
    context.clearRect(0, 0, size, size);
    context.drawImage(image, at.x / step - part / 2, at.y / step - part / 2, part, part, 0, 0, size, size);
    context.strokeStyle = '#22252b';
    context.strokeRect(0.5, size / 2 + 0.5, size, 0);
    context.strokeRect(size / 2 + 0.5, 0.5, 0, size);
  });

  const read = (e: PointerEvent): Point => {
    const box = frame!.getBoundingClientRect();
    return { x: (e.clientX - box.left) / k, y: (e.clientY - box.top) / k };
  };
  function down(e: PointerEvent): void {
    const p = read(e);
    const far = spots.map((s) => Math.hypot(s.x - p.x, s.y - p.y) * k);
    const nearest = far.indexOf(Math.min(...far));
    if (far.length === 0 || far[nearest]! > REACH) return;
    active = nearest;
    held = true;
    frame?.setPointerCapture(e.pointerId);
  }
  function key(e: KeyboardEvent, i: number): void {
    const d = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (!d) return;
    e.preventDefault();
    e.stopPropagation();
    const far = e.shiftKey ? 10 : 1;
    move(i, { x: spots[i]!.x + d[0]! * far, y: spots[i]!.y + d[1]! * far });
  }
</script>

<div class="both" style:--across="{own.width * k}px" role="group" aria-label={label}>
  <div
    bind:this={frame}
    class="frame"
    role="presentation"
    style:width="{own.width * k}px"
    style:height="{own.height * k}px"
    onpointerdown={down}
    onpointermove={(e) => held && move(active, read(e))}
    onpointerup={() => (held = false)}
    onpointercancel={() => (held = false)}
  >
    <canvas bind:this={canvas} aria-hidden="true"></canvas>
    <svg viewBox="0 0 {own.width} {own.height}" aria-hidden="true">
      {#if over}
        <path class="halo" d={over} vector-effect="non-scaling-stroke" />
        <path d={over} vector-effect="non-scaling-stroke" />
      {/if}
    </svg>
    {#each spots as s, i (i)}
      <button
        type="button"
        class="spot"
        class:active={i === active}
        style:left="{s.x * k}px"
        style:top="{s.y * k}px"
        aria-label="{i + 1}, {names[i]}: {Math.round(s.x)}, {Math.round(s.y)}"
        onfocus={() => {
          active = i;
          focused = true;
        }}
        onblur={() => (focused = false)}
        onkeydown={(e) => key(e, i)}>{i + 1}</button
      >
    {/each}
  </div>
  <canvas
    class="loupe"
    class:away={!held && !focused}
    class:left={(spots[active]?.x ?? 0) > own.width / 2}
    width="120"
    height="120"
    bind:this={loupe}
    aria-hidden="true"
  ></canvas>
</div>

<style>
  .both {
    position: relative;
  }
  .frame {
    position: relative;
    cursor: crosshair;
    touch-action: none;
    user-select: none;
  }
  .frame canvas,
  .frame svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    overflow: visible;
    pointer-events: none;
  }
  path {
    fill: none;
    stroke: #b0127b;
    stroke-width: 1.5;
  }
  path.halo {
    stroke: #fffdf6;
    stroke-width: 3.5;
  }
  .spot {
    position: absolute;
    width: 22px;
    height: 22px;
    border: 2px solid #fffdf6;
    border-radius: 50% 50% 50% 0;
    background: #b0127b;
    color: #ffffff;
    font-size: 12px;
    font-weight: 650;
    line-height: 1;
    rotate: 0deg;
    translate: 0 -100%;
    pointer-events: none;
  }
  .spot.active {
    background: var(--button);
    color: var(--on-carrot);
  }
  .loupe {
    position: absolute;
    left: calc(var(--across) - 120px);
    bottom: 0;
    border: 2px solid var(--paper);
    border-radius: 6px;
    pointer-events: none;
  }
  /* It covers what it does not show, so it is there only while a spot is moved. */
  .loupe.away {
    visibility: hidden;
  }
  .loupe.left {
    left: 0;
  }
</style>
