<script lang="ts">
  import {
    copiedShapes,
    drawnData,
    haloOf,
    lineRuns,
    shapesIn,
    shapesOf,
    wholePaths,
    type Shape,
  } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { View } from '$lib/desk/view';
  import { chunker } from './chunks';
  import Layer from './Layer.svelte';

  let { desk, view, margin }: { desk: Desk; view: View; margin: number } = $props();

  const seen = $derived(desk.looking.seen);
  // Lines are built when they are first seen: a finished drawing opens without them.
  let inked = $state(false);
  $effect.pre(() => {
    if (seen.ink) inked = true;
  });
  const width = $derived(desk.habits.inkWidth);
  const refining = $derived(desk.step === 'refine');

  interface Inked {
    readonly shape: Shape;
    /** The layer's own ink; null where the shape's is chosen against the picture. */
    readonly layerInk: string | null;
    /** It stands outside the group that is worked in. */
    readonly faded: boolean;
  }
  // The same object for a shape that has not changed, so that only what changed is drawn anew.
  const known = new WeakMap<Shape, Inked>();
  function inkedOf(shape: Shape, layerInk: string | null, faded: boolean): Inked {
    let inked = known.get(shape);
    if (inked?.layerInk !== layerInk || inked.faded !== faded)
      known.set(shape, (inked = { shape, layerInk, faded }));
    return inked!;
  }
  const focused = $derived(desk.choosing.focus && new Set(shapesIn(desk.choosing.focus)));
  const shown = $derived(
    shapesOf(desk.art)
      .filter((p) => p.shown)
      .map((p) => inkedOf(p.shape, p.layer.ink, focused !== null && !focused.has(p.shape))),
  );
  const chunked = chunker<Inked>();
  const chunks = $derived(inked ? chunked(shown) : []);
  const chosen = $derived(new Set(desk.live ? [desk.live.shape] : desk.choice.shapes));
  const active = $derived(inked && chosen.size > 0 ? shown.filter((s) => chosen.has(s.shape.id)) : []);

  /** Lines of what stands several times, each copy by the map that takes it there. */
  const copies = $derived(inked ? copiedShapes(desk.art) : []);
  const layerInks = $derived(copies.length > 0 ? new Map(shapesOf(desk.art).map((p) => [p.shape.id, p.layer.ink])) : null); // prettier-ignore

  const inkOf = ({ shape, layerInk }: Inked): string => desk.picture.inks.of(shape, layerInk);
</script>

<Layer {desk} {view} {margin}>
  <g
    class="inks"
    style:display={seen.ink ? null : 'none'}
    style:--thin="{(0.65 * width) / view.scale}px"
    style:--strong="{width / view.scale}px"
    style:--wide="{(width + 1.4) / view.scale}px"
  >
    {#if desk.habits.haze && refining}
      {#each active as inked (inked.shape.id)}
        <path class="haze" d={drawnData(wholePaths(inked.shape))} fill={inkOf(inked)} />
      {/each}
    {/if}
    {#each chunks as chunk, i (i)}
      {#each chunk as inked (inked.shape.id)}
        {@const ink = inkOf(inked)}
        {@const { shape } = inked}
        {#if desk.habits.trueStroke && refining && shape.stroke}
          <path
            class="weight"
            d={drawnData(wholePaths(shape))}
            stroke={ink}
            style:stroke-linecap={shape.stroke.ends}
            style:stroke-linejoin={shape.stroke.joins}
            style:stroke-miterlimit={shape.stroke.miterLimit}
            style:stroke-dasharray={shape.stroke.dash.join(' ') || null}
            style:stroke-width="{shape.stroke.width}px"
          />
        {/if}
        {@const lines = lineRuns(wholePaths(shape))}
        {#if !inked.faded}
          {#each lines as d, i (i)}<path class="halo" {d} stroke={haloOf(ink)} />{/each}
        {/if}
        {#each lines as d, i (i)}
          <path {d} stroke={ink} class:faded={inked.faded} data-shape={i === 0 ? shape.id : null} />
        {/each}
      {/each}
    {/each}
    {#each copies as { shape, maps } (shape.id)}
      {@const d = drawnData(wholePaths(shape))}
      {@const ink = desk.picture.inks.of(shape, layerInks?.get(shape.id) ?? null)}
      {#each maps as map, i (i)}
        <path class="copy" {d} stroke={ink} transform="matrix({map.join(' ')})" />
      {/each}
    {/each}
    {#each active as inked (inked.shape.id)}
      {@const lines = lineRuns(wholePaths(inked.shape))}
      {#each lines as d, i (i)}<path class="active" {d} stroke={inkOf(inked)} />{/each}
    {/each}
  </g>
</Layer>

<style>
  .inks {
    fill: none;
    stroke-width: var(--thin);
    stroke-linejoin: round;
  }
  .halo {
    stroke-opacity: 0.7;
    stroke-width: var(--wide);
  }
  .weight {
    stroke-opacity: 0.28;
  }
  .haze {
    fill-opacity: 0.36;
    fill-rule: evenodd;
  }
  .copy {
    stroke-opacity: 0.6;
  }
  .faded {
    stroke-opacity: 0.25;
  }
  .active {
    stroke-width: var(--strong);
  }
</style>
