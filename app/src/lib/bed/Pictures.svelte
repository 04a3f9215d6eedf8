<script lang="ts">
  import { onDestroy, untrack } from 'svelte';
  import { meanScale, seenSize, type PlacedPicture } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { matrixText, type View } from '$lib/desk/view';
  import { halfPlane } from './wipe';
  import Layer from './Layer.svelte';

  interface Props {
    desk: Desk;
    view: View;
    margin: number;
    /** Those that lie above the drawing; left out, the sheet and those beneath. */
    above?: boolean;
    /** All pictures as they are, whatever else is seen; another one looks after their pixels. */
    alone?: boolean;
  }
  let { desk, view, margin, above = false, alone = false }: Props = $props();

  const sheet = $derived(desk.art.sheet);
  const opacity = $derived(alone ? 1 : desk.looking.seen.picture);
  const shown = $derived(desk.art.pictures.filter((p) => p.shown && (alone || Boolean(p.above) === above)));

  /** Longest side of the server's working copy. */
  const WORK = 2048;
  /** Whether the working copy is too coarse for what is seen now. */
  const near = (p: PlacedPicture): boolean => {
    const coarse = Math.max(p.width, p.height) / WORK;
    return coarse > 1 && meanScale(p.placement) * view.scale * devicePixelRatio * coarse > 1.2;
  };
  $effect(() => {
    for (const p of shown) void desk.picture.seeing.want(p, near(p));
  });
  // The sheet is always there: the one it is part of looks after the pixels of all.
  $effect(() => {
    const { pictures } = desk.art;
    if (!above && !alone) untrack(() => desk.picture.seeing.keepOnly(pictures));
  });
  onDestroy(() => {
    if (!above && !alone) desk.picture.seeing.keepOnly([]);
  });

  // Proved, the picture is as it is, without its wash.
  const wiped = $derived(alone ? null : desk.comparing.wiped);
  const plain = $derived(alone || desk.step === 'proof');
  const id = $props.id();
  // Drains and lightens exactly as the core's `washed` does: it is one linear map of sRGB.
  function washMatrix(wash: number): string {
    const k = wash / 100;
    const m = k * 0.6;
    const luma = [0.2126, 0.7152, 0.0722];
    const row = (channel: number): string =>
      [...luma.map((l, i) => (1 - m) * (k * l + (i === channel ? 1 - k : 0))), 0, m].join(' ');
    return `${row(0)} ${row(1)} ${row(2)} 0 0 0 1 0`;
  }
</script>

<Layer {desk} {view} {margin}>
  {#each shown.filter((p) => p.wash > 0) as p (p.id)}
    <filter id="wash-{id}-{p.id}" x="0" y="0" width="1" height="1" color-interpolation-filters="sRGB">
      <feColorMatrix type="matrix" values={washMatrix(p.wash)} />
    </filter>
  {/each}
  {#if !above}
    <rect
      class="sheet"
      width={sheet.width}
      height={sheet.height}
      fill={sheet.ground ?? '#fffdf8'}
      stroke-width={1 / view.scale}
    />
  {/if}
  {#if wiped}<clipPath id="wiped-{id}"><polygon points={halfPlane(wiped, -1, sheet)} /></clipPath>{/if}
  <g {opacity} clip-path={wiped ? `url(#wiped-${id})` : null} style:display={opacity > 0 ? null : 'none'}>
    {#each shown as p (p.id)}
      {@const size = seenSize(p)}
      {@const hrefs = desk.picture.seeing.hrefs(p)}
      {#if p.crop}
        <clipPath id="crop-{id}-{p.id}">
          <rect x={p.crop.x0} y={p.crop.y0} width={p.crop.x1 - p.crop.x0} height={p.crop.y1 - p.crop.y0} />
        </clipPath>
      {/if}
      <g
        transform={matrixText(p.placement)}
        filter={p.wash > 0 && !plain ? `url(#wash-${id}-${p.id})` : null}
        clip-path={p.crop && desk.pointing.task?.kind !== 'crop' ? `url(#crop-${id}-${p.id})` : null}
      >
        {#if hrefs}
          <image href={hrefs.work} {...size} preserveAspectRatio="none" />
          {#if near(p) && hrefs.full !== hrefs.work}
            <image href={hrefs.full} {...size} preserveAspectRatio="none" />
          {/if}
        {/if}
      </g>
    {/each}
  </g>
</Layer>

<style>
  .sheet {
    stroke: var(--line);
  }
</style>
