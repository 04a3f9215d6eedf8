<script lang="ts">
  import { addGuide } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { Gesture } from '$lib/desk/changes';
  import { toSheet, type View } from '$lib/desk/view';
  import { newId } from '$lib/ids';
  import { rulerTicks } from './ticks';

  interface Props {
    desk: Desk;
    /** The view the bed was last drawn in, and how it is shifted and scaled since. */
    view: View;
    moved: { readonly x: number; readonly y: number; readonly scale: number };
  }
  let { desk, view, moved }: Props = $props();

  /** How thick a ruler is, bed pixels. */
  const THICK = 18;
  const unit = $derived(desk.art.sheet.unit);
  const across = $derived(rulerTicks(view.scale, view.tx, desk.looking.bed.width, unit));
  const down = $derived(rulerTicks(view.scale, view.ty, desk.looking.bed.height, unit));

  // A guide is pulled out of a ruler; let go over it again, there is none.
  let pulling: { gesture: Gesture; id: string; level: boolean; left: number; top: number } | null = null;
  function press(e: PointerEvent, level: boolean): void {
    if (e.button !== 0) return;
    e.stopPropagation();
    const target = e.currentTarget as HTMLElement;
    target.setPointerCapture(e.pointerId);
    const { left, top } = target.parentElement!.getBoundingClientRect();
    pulling = { gesture: desk.gesture('Add a guide'), id: newId(), level, left, top };
  }
  const place = (e: PointerEvent): { x: number; y: number; over: boolean } => {
    const p = { x: e.clientX - pulling!.left, y: e.clientY - pulling!.top };
    return { ...toSheet(desk.looking.view, p), over: pulling!.level ? p.y < THICK : p.x < THICK };
  };
  function move(e: PointerEvent): void {
    e.stopPropagation();
    if (!pulling) return;
    const { x, y } = place(e);
    pulling.gesture.show(addGuide({ id: pulling.id, x, y, angle: pulling.level ? 0 : Math.PI / 2 }));
  }
  function lift(e: PointerEvent): void {
    e.stopPropagation();
    if (!pulling) return;
    if (place(e).over) pulling.gesture.drop();
    else pulling.gesture.keep();
    pulling = null;
  }
</script>

<div
  class="ruler top"
  role="presentation"
  data-tip="Pull a level guide out of here"
  onpointerdown={(e) => press(e, true)}
  onpointermove={move}
  onpointerup={lift}
  onpointercancel={() => {
    pulling?.gesture.drop();
    pulling = null;
  }}
>
  <svg aria-hidden="true" style:transform="translateX({moved.x}px) scaleX({moved.scale})">
    {#each across as t (t.at)}
      <path d="M{t.at} {THICK}V{t.text === null ? THICK - 4 : 4}" />
      {#if t.text !== null}<text x={t.at + 3} y="11">{t.text}</text>{/if}
    {/each}
  </svg>
</div>
<div
  class="ruler left"
  role="presentation"
  data-tip="Pull an upright guide out of here"
  onpointerdown={(e) => press(e, false)}
  onpointermove={move}
  onpointerup={lift}
  onpointercancel={() => {
    pulling?.gesture.drop();
    pulling = null;
  }}
>
  <svg aria-hidden="true" style:transform="translateY({moved.y}px) scaleY({moved.scale})">
    {#each down as t (t.at)}
      <path d="M{THICK} {t.at}H{t.text === null ? THICK - 4 : 4}" />
      {#if t.text !== null}<text transform="translate(11 {t.at + 3}) rotate(90)">{t.text}</text>{/if}
    {/each}
  </svg>
</div>

<style>
  .ruler {
    position: absolute;
    overflow: hidden;
    background: var(--ledge);
    touch-action: none;
  }
  .top {
    inset: 0 0 auto 0;
    height: 18px;
    border-bottom: 1px solid var(--line);
    cursor: row-resize;
  }
  .left {
    inset: 18px auto 0 0;
    width: 18px;
    border-right: 1px solid var(--line);
    cursor: col-resize;
  }
  .left svg {
    top: -18px;
  }
  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: calc(100% + 18px);
    overflow: visible;
    transform-origin: 0 0;
    will-change: transform;
  }
  path {
    stroke: var(--quiet);
    stroke-width: 1;
  }
  text {
    font-size: 10px;
    fill: var(--quiet);
  }
</style>
