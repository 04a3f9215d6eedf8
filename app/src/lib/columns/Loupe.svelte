<script lang="ts">
  import {
    compose,
    drawnData,
    formatHex,
    haloOf,
    meanScale,
    oklabToOklch,
    rgbToOklab,
    seenSize,
    wholePaths,
  } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { discShown } from '$lib/bed/sampling';
  import { pixelsKey, samplePicture } from '$lib/desk/rasters';

  let { desk }: { desk: Desk } = $props();

  /** Times the picture's pixels are enlarged; twice the bed when that is nearer. */
  const ENLARGED = 8;
  let canvas: HTMLCanvasElement | undefined = $state();
  let width = $state(230);
  const height = 172;

  const at = $derived(desk.pointing.focus ?? desk.pointing.cross ?? desk.pointing.pointer);
  const rgb = $derived(at && samplePicture(desk.picture.inks.raster, desk.picture.traced, at, 0));
  const lch = $derived(rgb && oklabToOklch(rgbToOklab(rgb)));
  /** The disc that is sampled, and the middle of its colours. */
  const disc = $derived(discShown(desk));
  const median = $derived.by(() => {
    const middle = disc && samplePicture(desk.picture.inks.raster, desk.picture.traced, disc.at, disc.radius);
    return middle && formatHex(middle);
  });
  /** Width of the band about the disc that shows its middle, pixels. */
  const BAND_PX = 12;
  const usual = $derived(
    Math.max(
      desk.picture.traced ? ENLARGED / meanScale(desk.picture.traced.placement) : ENLARGED,
      2 * desk.looking.view.scale,
    ),
  );
  // A wide disc is seen whole, with its band.
  const scale = $derived(disc ? Math.min(usual, (height / 2 - BAND_PX - 4) / disc.radius) : usual);
  const active = $derived.by(() => {
    const shape = desk.live ? desk.shapeOf(desk.live.shape) : (desk.chosenShapes[0] ?? null);
    return shape && desk.looking.seen.ink
      ? { d: drawnData(wholePaths(shape)), ink: desk.picture.inkOf(shape) }
      : null;
  });

  $effect(() => {
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    const k = devicePixelRatio;
    canvas.width = Math.round(width * k);
    canvas.height = Math.round(height * k);
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, canvas.width, canvas.height);
    if (!at) return;
    const view = [
      k * scale,
      0,
      0,
      k * scale,
      k * (width / 2 - at.x * scale),
      k * (height / 2 - at.y * scale),
    ] as const;
    const loaded = desk.picture.inks.raster;
    const picture = desk.picture.traced;
    if (loaded?.image && picture && pixelsKey(picture) === loaded.key && picture.shown) {
      const { width: across, height: down } = seenSize(picture);
      context.setTransform(...compose(view, picture.placement));
      context.imageSmoothingEnabled = false;
      context.drawImage(loaded.image, 0, 0, across, down);
    }
    if (active) {
      const line = new Path2D(active.d);
      context.setTransform(...view);
      context.lineJoin = 'round';
      for (const [colour, weight] of [
        [haloOf(active.ink), 3.6],
        [active.ink, 1.6],
      ] as const) {
        context.strokeStyle = colour;
        context.lineWidth = weight / scale;
        context.stroke(line);
      }
    }
    context.setTransform(k, 0, 0, k, 0, 0);
    if (disc && median) {
      // The raw pixels in the disc, their middle in a band about it.
      const [cx, cy] = [width / 2 + (disc.at.x - at.x) * scale, height / 2 + (disc.at.y - at.y) * scale];
      const r = disc.radius * scale;
      const ring = (radius: number, colour: string, weight: number): void => {
        context.strokeStyle = colour;
        context.lineWidth = weight;
        context.beginPath();
        context.arc(cx, cy, radius, 0, 2 * Math.PI);
        context.stroke();
      };
      ring(r + BAND_PX / 2, '#fffdf6', BAND_PX + 3);
      ring(r + BAND_PX / 2, median, BAND_PX);
    }
    context.lineWidth = 1;
    const [x, y] = [width / 2, height / 2];
    for (const [colour, off] of [
      ['rgb(255 253 246 / 0.7)', 1],
      ['rgb(34 36 31 / 0.8)', 0],
    ] as const) {
      context.strokeStyle = colour;
      context.beginPath();
      context.moveTo(x - 34, y + off + 0.5);
      context.lineTo(x + 34, y + off + 0.5);
      context.moveTo(x + off + 0.5, y - 34);
      context.lineTo(x + off + 0.5, y + 34);
      context.stroke();
    }
  });
</script>

<section aria-label="Loupe">
  <div class="window" bind:clientWidth={width} style:height="{height}px">
    <canvas bind:this={canvas} aria-hidden="true"></canvas>
    {#if !at}<p class="quiet">Point at the picture to see it eight times enlarged.</p>{/if}
  </div>
  <p class="values">
    {#if disc && median}
      <span><i style:background={median}></i>{median.toUpperCase()} middle</span>
      <span class="quiet"><i style:background={rgb && formatHex(rgb)}></i>this pixel</span>
    {:else if rgb && lch}
      <span><i style:background={formatHex(rgb)}></i>{formatHex(rgb).toUpperCase()}</span>
      <span class="quiet">L {Math.round(lch[0] * 100)} C {lch[1].toFixed(2)} h {Math.round(lch[2])}°</span>
    {:else}
      <span class="quiet">no picture under the pointer</span>
    {/if}
  </p>
</section>

<style>
  .window {
    position: relative;
    overflow: hidden;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--desk);
  }
  canvas {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
  .window p {
    display: grid;
    place-items: center;
    height: 100%;
    padding: 20px;
    text-align: center;
  }
  .values {
    display: flex;
    justify-content: space-between;
    margin-top: 5px;
    font-size: 12.5px;
  }
  i {
    display: inline-block;
    width: 12px;
    height: 12px;
    margin-right: 5px;
    border: 1px solid var(--line);
    border-radius: 4px;
    vertical-align: -1px;
  }
</style>
