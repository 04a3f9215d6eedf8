<script lang="ts">
  import { apply, formatHex, fromPx, hexOf, invert, UNIT_DIGITS } from '@mirrot/core';
  import { choiceInWords } from '$lib/desk/choice';
  import { samplePicture } from '$lib/desk/rasters';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { receiverInWords } from '$lib/desk/receivers';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const unit = $derived(desk.art.sheet.unit);
  const digits = $derived(UNIT_DIGITS[unit]);
  const at = $derived(desk.pointing.focus ?? desk.pointing.cross ?? desk.pointing.pointer);
  const colour = $derived.by(() => {
    const rgb = at && samplePicture(desk.picture.inks.raster, desk.picture.traced, at, 0);
    return rgb && formatHex(rgb);
  });
  const pixel = $derived.by(() => {
    const back = desk.picture.traced && invert(desk.picture.traced.placement);
    return at && back ? apply(back, at) : null;
  });
  const place = (p: { x: number; y: number }): string =>
    `${fromPx(p.x, unit).toFixed(digits)}, ${fromPx(p.y, unit).toFixed(digits)} ${unit}`;
  const next = $derived(desk.colouring.nextFill && hexOf(desk.colouring.nextFill, desk.colouring.palette));
  const percent = $derived(desk.looking.view.scale * 100);
</script>

<footer class="status">
  <span class="place">
    {#if at}{fromPx(at.x, unit).toFixed(digits)}, {fromPx(at.y, unit).toFixed(digits)} {unit}{:else}– , – {unit}{/if}
  </span>
  <span class="colour">
    {#if colour}
      <i class="dot" style:background={colour}></i>
      {colour.toUpperCase()} at pixel {Math.floor(pixel!.x)}, {Math.floor(pixel!.y)}
    {/if}
  </span>
  <span id="bed-says" aria-live="polite" dir="auto">
    {desk.pointing.cross ? `crosshair at ${place(desk.pointing.cross)}, ` : ''}{desk.live
      ? `drawing, ${desk.livePath?.anchors.length ?? 0} ${desk.livePath?.anchors.length === 1 ? 'anchor' : 'anchors'}`
      : choiceInWords(desk.choice, desk.art)}
  </span>
  {#if desk.pointing.underPointer}<span class="under">{desk.pointing.underPointer}</span>{/if}
  <span class="receiver" dir="auto">colour goes to {receiverInWords(desk)}</span>
  <button
    class="next"
    aria-pressed={next !== null}
    aria-label="next fill: {next ? next.toUpperCase() : 'none'}"
    data-tip={next
      ? 'The next path gets this fill. A press puts it to none.'
      : 'The next path gets no fill. A press takes the last one again.'}
    onclick={() => desk.colouring.turnNextFill()}
  >
    next fill <i class="dot" class:clear-ground={!next} style:background={next}></i>
  </button>
  <span class="zoom">
    <span class="anchors"
      >{desk.drawing.figures.anchors}
      {desk.drawing.figures.anchors === 1 ? 'anchor' : 'anchors'} in all ·</span
    >
    {percent < 10 ? percent.toFixed(1) : Math.round(percent)} %
  </span>
</footer>

<style>
  .status {
    grid-area: status;
    display: flex;
    align-items: center;
    gap: 22px;
    height: 26px;
    padding: 0 14px;
    overflow: hidden;
    border-top: 1px solid var(--line);
    background: var(--paper);
    font-size: 12px;
    color: var(--quiet);
    white-space: nowrap;
  }
  .status > span {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .place {
    flex: none;
    min-width: 130px;
  }
  .colour {
    flex: none;
    min-width: 190px;
  }
  .dot {
    display: inline-block;
    width: 11px;
    height: 11px;
    margin-right: 4px;
    border: 1px solid var(--line);
    border-radius: 3px;
    vertical-align: -1px;
  }
  .next {
    flex: none;
    height: 24px;
    padding: 0 4px;
    border-radius: 4px;
  }
  .next:hover {
    background: var(--ledge);
  }
  .zoom {
    flex: none;
    margin-left: auto;
  }
  @media (width < 1000px) {
    .status {
      gap: 14px;
    }
    .colour {
      display: none;
    }
  }
  @media (width < 760px) {
    .under,
    .receiver,
    .anchors {
      display: none;
    }
    .place {
      min-width: 100px;
    }
  }
</style>
