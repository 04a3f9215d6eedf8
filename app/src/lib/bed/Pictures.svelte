<script lang="ts">
  import { meanScale, type PlacedPicture } from '@mirrot/core';
  import { pictureUrl } from '$lib/desk/api';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { matrixText, viewMatrix, type View } from '$lib/desk/view';

  let { desk, view, margin }: { desk: Desk; view: View; margin: number } = $props();

  /** Longest side of the server's working copy. */
  const WORK = 2048;

  const sheet = $derived(desk.art.sheet);
  const opacity = $derived(desk.seen.picture);
  const shown = $derived(desk.art.pictures.filter((p) => p.shown));
  const inset = $derived({ ...view, tx: view.tx + margin, ty: view.ty + margin });

  /** Whether the working copy is too coarse for what is seen now. */
  const near = (p: PlacedPicture): boolean => {
    const coarse = Math.max(p.width, p.height) / WORK;
    return coarse > 1 && meanScale(p.placement) * view.scale * devicePixelRatio * coarse > 1.2;
  };

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

<svg
  class="layer"
  style:left="{-margin}px"
  style:top="{-margin}px"
  width={desk.bed.width + 2 * margin}
  height={desk.bed.height + 2 * margin}
  aria-hidden="true"
>
  {#each shown.filter((p) => p.wash > 0) as p (p.id)}
    <filter id="wash-{p.id}" x="0" y="0" width="1" height="1" color-interpolation-filters="sRGB">
      <feColorMatrix type="matrix" values={washMatrix(p.wash)} />
    </filter>
  {/each}
  <g transform={matrixText(viewMatrix(inset))}>
    <rect
      class="sheet"
      width={sheet.width}
      height={sheet.height}
      fill={sheet.ground ?? '#fffdf8'}
      stroke-width={1 / view.scale}
    />
    <g {opacity} style:display={opacity > 0 ? null : 'none'}>
      {#each shown as p (p.id)}
        <g transform={matrixText(p.placement)} filter={p.wash > 0 ? `url(#wash-${p.id})` : null}>
          <image
            href={pictureUrl(p.source, 'work')}
            width={p.width}
            height={p.height}
            preserveAspectRatio="none"
          />
          {#if near(p)}
            <image
              href={pictureUrl(p.source, 'full')}
              width={p.width}
              height={p.height}
              preserveAspectRatio="none"
            />
          {/if}
        </g>
      {/each}
    </g>
  </g>
</svg>

<style>
  .layer {
    position: absolute;
  }
  .sheet {
    stroke: var(--line);
  }
</style>
