<script lang="ts">
  import { pointText } from '$lib/desk/view';
  import {
    apply,
    compose,
    followPicture,
    homography,
    invertHomography,
    measuredAspect,
    MirrotError,
    project,
    scaling,
    squareUp,
    translation,
    warpRaster,
    type PlacedPicture,
    type Point,
  } from '@mirrot/core';
  import { placePicture } from '$lib/desk/placing';
  import { borrowPixels, type LoadedPicture } from '$lib/desk/rasters';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Modal from '$lib/ui/Modal.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import PictureSpots from './PictureSpots.svelte';
  import { KNOWN } from './sheets';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const picture = $derived(desk.picture.traced);
  const open = $derived(workplace.dialog === 'square-up' && picture !== null);

  const NAMES = ['Top left corner', 'Top right corner', 'Bottom right corner', 'Bottom left corner'];
  let loaded: LoadedPicture | null = $state.raw(null);
  let corners: readonly Point[] = $state.raw([]);
  let how = $state<'measured' | 'known' | 'circle' | 'typed'>('measured');
  let known = $state(KNOWN[0]!.name);
  let across = $state(3);
  let down = $state(2);
  let preview: HTMLCanvasElement | undefined = $state();
  let failed = $state(false);

  $effect(() => {
    if (!open || !picture) return;
    const { width, height, square } = picture;
    corners = square
      ? square.corners
      : ([[0.2, 0.2], [0.8, 0.2], [0.8, 0.8], [0.2, 0.8]] as const).map(([x, y]) => ({ x: x * width, y: y * height })); // prettier-ignore
    failed = false;
    return borrowPixels({ ...picture, square: null }, (l) => (loaded = l), () => (failed = true)); // prettier-ignore
  });

  /** The straight picture these corners make, or why they make none. */
  const made = $derived.by(() => {
    if (!picture || corners.length < 4) return null;
    try {
      const aspect =
        how === 'circle' ? 1 : how === 'typed' ? across / down : measuredAspect(corners, picture);
      return { aspect, ...squareUp(corners, aspect) };
    } catch (error) {
      return error instanceof MirrotError ? error.message : String(error);
    }
  });
  const wrong = $derived(typeof made === 'string' ? made : null);

  /** The quadrilateral, and the circle in it as it would be seen. */
  const over = $derived.by(() => {
    let d = `M${corners.map(pointText).join('L')}Z`;
    if (how === 'circle' && made && typeof made !== 'string') {
      const back = invertHomography(made.map);
      const r = made.width / 2;
      const round = Array.from({ length: 64 }, (_, i) => project(back, { x: r + r * Math.cos((i * Math.PI) / 32), y: r + r * Math.sin((i * Math.PI) / 32) })); // prettier-ignore
      d += `M${round.map(pointText).join('L')}Z`;
    }
    return d;
  });

  $effect(() => {
    const context = preview?.getContext('2d');
    if (!preview || !context || !loaded || !made || typeof made === 'string') return;
    const k = Math.min(230 / made.width, 300 / made.height);
    const [w, h] = [Math.max(1, Math.round(made.width * k)), Math.max(1, Math.round(made.height * k))];
    const { step, pixels } = loaded;
    const small = homography(
      corners.map((p) => ({ x: p.x / step, y: p.y / step })),
      [{ x: 0, y: 0 }, { x: w, y: 0 }, { x: w, y: h }, { x: 0, y: h }],
    ); // prettier-ignore
    const seen = warpRaster(pixels, small, w, h);
    preview.width = w;
    preview.height = h;
    context.putImageData(new ImageData(new Uint8ClampedArray(seen.data), w, h), 0, 0);
  });

  const close = (): void => void (workplace.dialog = null);

  /** Where the straight picture lies: upright, about the middle of where it was, covering as much of the sheet. */
  function placementOf(
    p: PlacedPicture,
    square: NonNullable<PlacedPicture['square']>,
  ): PlacedPicture['placement'] {
    const own = p.square ? invertHomography(homography(p.square.corners, cornersOf(p.square))) : null;
    const seen = (q: Point): Point => apply(p.placement, own ? project(invertHomography(own), q) : q);
    const on = square.corners.map(seen);
    const area =
      Math.abs(on.reduce((s, a, i) => s + a.x * on[(i + 1) % 4]!.y - a.y * on[(i + 1) % 4]!.x, 0)) / 2;
    const k = Math.sqrt(area / (square.width * square.height));
    const c = on.reduce((s, q) => ({ x: s.x + q.x / 4, y: s.y + q.y / 4 }), { x: 0, y: 0 });
    return compose(translation(c.x - (k * square.width) / 2, c.y - (k * square.height) / 2), scaling(k));
  }
  const cornersOf = ({ width, height }: { width: number; height: number }): Point[] => [
    { x: 0, y: 0 }, { x: width, y: 0 }, { x: width, y: height }, { x: 0, y: height },
  ]; // prettier-ignore

  function take(): void {
    if (!picture || !made || typeof made === 'string') return;
    const square = {
      corners: corners.map((p) => ({ ...p })) as unknown as NonNullable<PlacedPicture['square']>['corners'],
      width: made.width,
      height: made.height,
    };
    const values = { square, crop: null, placement: placementOf(picture, square) };
    const follows = desk.picture.follow ? followPicture(desk.art, picture, { ...picture, ...values }) : null;
    close();
    placePicture(desk, 'Square up', values);
    const told =
      follows && follows.shapes > 0
        ? ` ${follows.shapes} shapes went along, ${follows.error.toFixed(3)} px off at most.`
        : '';
    desk.say(`The picture is seen straight on, ${made.width} × ${made.height} px.${told}`, 'good');
  }
</script>

<Modal {open} title="Square up" {close} width={900}>
  <p class="quiet">
    Put the four corners onto something that is really a rectangle, or onto the square round a circle.
  </p>
  <div class="all">
    {#if loaded}
      <PictureSpots
        label="The picture as it was taken"
        raster={loaded.pixels}
        image={loaded.image!}
        step={loaded.step}
        spots={corners}
        names={NAMES}
        width={580}
        height={420}
        {over}
        move={(i, to) => (corners = corners.map((c, j) => (j === i ? to : c)))}
      />
    {:else}
      <p class="wait">{failed ? 'The picture’s pixels could not be fetched.' : 'Reading the picture'}</p>
    {/if}
    <div class="side">
      <Segments
        label="Width to height"
        value={how}
        options={[
          ['measured', 'measured'],
          ['known', 'known'],
          ['circle', 'circle'],
          ['typed', 'typed'],
        ] as const}
        change={(v) => (how = v)}
      />
      {#if how === 'known'}
        <label class="field">
          <span class="quiet">it is</span>
          <select aria-label="It is a known rectangle" bind:value={known}>
            {#each KNOWN as one (one.name)}<option value={one.name}>{one.name}</option>{/each}
          </select>
        </label>
      {/if}
      {#if how === 'typed'}
        <div class="pair">
          <NumberField
            label="w"
            name="Width in the ratio"
            value={across}
            min={0.01}
            max={10_000}
            change={(v) => (across = v)}
          />
          <NumberField
            label="h"
            name="Height in the ratio"
            value={down}
            min={0.01}
            max={10_000}
            change={(v) => (down = v)}
          />
        </div>
      {/if}
      <canvas bind:this={preview} class="preview" aria-hidden="true"></canvas>
      {#if wrong}
        <p class="wrong" role="alert">{wrong}</p>
      {:else if made && typeof made !== 'string'}
        <p class="quiet">{made.width} × {made.height} px, {made.aspect.toFixed(3)} : 1</p>
      {/if}
    </div>
  </div>
  <div class="actions">
    <button class="plain-button" onclick={close}>Leave it</button>
    <button class="main-button" disabled={wrong !== null || !loaded} onclick={take}>See it straight on</button
    >
  </div>
</Modal>

<style>
  .all {
    display: grid;
    grid-template-columns: 580px 1fr;
    gap: 16px;
    min-height: 420px;
    margin: 10px 0;
  }
  @media (width < 760px) {
    .all {
      flex: none;
      grid-template-columns: minmax(0, 1fr);
      min-height: 0;
    }
  }
  .wait {
    display: grid;
    place-items: center;
    color: var(--quiet);
  }
  .side {
    display: flex;
    flex-direction: column;
    gap: 10px;
  }
  .preview {
    align-self: center;
    max-width: 100%;
    border: 1px solid var(--line);
    border-radius: 4px;
  }
  .wrong {
    color: var(--brick);
  }
  .actions {
    display: flex;
    justify-content: flex-end;
    gap: 10px;
  }
</style>
