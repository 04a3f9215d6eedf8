<script lang="ts">
  import { FARTHEST_COORDINATE, type Point } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { moveBetween, toBed, toSheet } from '$lib/desk/view';
  import { untrack } from 'svelte';
  import type { BedPointer, PressMachine } from './behaviour';
  import Fills from './Fills.svelte';
  import Inks from './Inks.svelte';
  import Marks from './Marks.svelte';
  import Pictures from './Pictures.svelte';
  import { shapesAt } from './listing';
  import { lengthAndRadius } from './grips';
  import { askReach } from './block-in-target';
  import { TURNS_AHEAD } from './reaching';
  import { DrawnView, MARGIN_PX } from './drawn-view.svelte';
  import { createFingers } from './fingers';
  import { foresee, nodeForeseen } from './foresight';
  import { currentGradient } from '$lib/edits/painting';
  import { wheelDisc } from './sampling';
  import { lookByWheel } from './wheel';

  interface Props {
    desk: Desk;
    machine: PressMachine;
    element?: HTMLElement;
  }
  let { desk, machine, element = $bindable() }: Props = $props();

  /** Coordinates that can be pressed: half of what the document holds, so that handles fit too. */
  const REACH = FARTHEST_COORDINATE / 2;

  let rect = { left: 0, top: 0 };
  let whole = { left: 0, top: 0, width: 0, height: 0 };
  let inSecond = $state(false);
  const halves = $derived(desk.comparing.halves);
  /** Into how many parts the bed is split, across and down. */
  const parts = $derived(halves ? (halves.way === 'across' ? [2, 1] : [1, 2]) : [1, 1]) as [number, number];
  // Split or whole again, the bed shows all of the sheet.
  let split = '1 1';
  $effect(() => {
    const now = parts.join(' ');
    if (now === split) return;
    split = now;
    untrack(measure);
    untrack(() => desk.looking.fit());
  });
  /** Places of the half with the drawing, and of the other one, as CSS. */
  const placeOfHalf = (first: boolean): string =>
    halves?.way === 'down'
      ? `left:0;width:100%;height:50%;top:${first ? '0' : '50%'}`
      : `top:0;height:100%;width:50%;left:${first ? '0' : '50%'}`;
  let over: BedPointer | null = $state.raw(null);
  let panning: { id: number; last: Point } | null = $state.raw(null);

  const drawn = new DrawnView(untrack(() => desk.looking));
  const moved = $derived(moveBetween(drawn.view, desk.looking.view));
  const veil = $derived(desk.picture.traced?.veil ?? false);
  /** A picture lies above the drawing. */
  const covered = $derived(desk.art.pictures.some((p) => p.above && p.shown));
  const inksApart = $derived(veil || covered);
  const transform = $derived(`translate(${moved.x}px, ${moved.y}px) scale(${moved.scale})`);

  // --- the pointer ---------------------------------------------------------------------------------------------------

  function measure(): void {
    if (!element) return;
    const r = element.getBoundingClientRect();
    whole = { left: r.left, top: r.top, width: r.width, height: r.height };
    rect = cornerOfHalf();
    const [across, down] = parts;
    const [width, height] = [r.width / across, r.height / down];
    if (width === desk.looking.bed.width && height === desk.looking.bed.height) return;
    // What was in the middle stays there.
    desk.looking.view = {
      ...desk.looking.view,
      tx: desk.looking.view.tx + (width - desk.looking.bed.width) / 2,
      ty: desk.looking.view.ty + (height - desk.looking.bed.height) / 2,
    };
    desk.looking.bed = { width, height };
  }
  /** The half of the bed that a place of the page lies in is what all is measured from: what is meant in one is meant in both. */
  function enterHalf(e: MouseEvent): void {
    const [across, down] = parts;
    const second = (across === 2 && e.clientX >= whole.left + whole.width / 2) || (down === 2 && e.clientY >= whole.top + whole.height / 2); // prettier-ignore
    inSecond = second;
    rect = cornerOfHalf();
  }
  /** The top left corner, on the page, of the half that the pointer is in. */
  function cornerOfHalf(): typeof rect {
    const [across, down] = parts;
    return {
      left: whole.left + (inSecond && across === 2 ? whole.width / 2 : 0),
      top: whole.top + (inSecond && down === 2 ? whole.height / 2 : 0),
    };
  }
  $effect(() => {
    if (!element) return;
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    untrack(measure);
    return () => observer.disconnect();
  });

  const held = (v: number): number => Math.min(REACH, Math.max(-REACH, v));
  function read(e: MouseEvent): Omit<BedPointer, 'again'> {
    const screen = { x: e.clientX - rect.left, y: e.clientY - rect.top };
    const p = toSheet(desk.looking.view, screen);
    const type =
      'pointerType' in e && (e.pointerType === 'pen' || e.pointerType === 'touch') ? e.pointerType : 'mouse';
    return {
      screen,
      sheet: { x: held(p.x), y: held(p.y) },
      shift: e.shiftKey,
      alt: e.altKey,
      type,
      time: e.timeStamp,
    };
  }

  const fingers = untrack(() => createFingers(desk, () => rect));

  /** Lists what lies at a spot: by the right button, or a finger held still; by the menu key where the crosshair is. */
  function listAt(e: MouseEvent): void {
    const p = desk.pointing.cross && pointer ? pointer : read(e);
    const shapes = shapesAt(desk, { ...p, again: false });
    if (shapes.length === 0) return void (desk.pointing.listed = null);
    machine.cancel();
    desk.pointing.listed = { at: p.screen, shapes: shapes.map((s) => s.id) };
  }
  const HOLD = 500;
  let holding: { timer: ReturnType<typeof setTimeout>; at: Point } | null = null;
  function letGo(): void {
    clearTimeout(holding?.timer);
    holding = null;
  }

  function down(e: PointerEvent): void {
    measure();
    letGo();
    if (!machine.busy && !panning) enterHalf(e);
    element?.focus({ preventScroll: true });
    fingers.penSeen(e);
    if (fingers.isPalm(e)) return;
    if (fingers.down(e)) {
      // The first finger meant nothing yet: what it began is taken back.
      machine.cancel();
      panning = null;
      element?.setPointerCapture(e.pointerId);
      return;
    }
    if (machine.busy || panning || fingers.spent) return;
    if (e.button === 1 || (e.button === 0 && desk.pointing.held.has('space'))) {
      e.preventDefault();
      panning = { id: e.pointerId, last: { x: e.clientX, y: e.clientY } };
    } else if (e.button === 0 && e.isPrimary) {
      machine.down(read(e));
      if (e.pointerType === 'touch')
        holding = { timer: setTimeout(() => listAt(e), HOLD), at: { x: e.clientX, y: e.clientY } };
    } else return;
    element?.setPointerCapture(e.pointerId);
  }
  function move(e: PointerEvent): void {
    fingers.penSeen(e);
    if (holding && Math.hypot(e.clientX - holding.at.x, e.clientY - holding.at.y) > 8) letGo();
    if (fingers.move(e)) return;
    if (panning) {
      if (e.pointerId !== panning.id) return;
      desk.looking.pan(e.clientX - panning.last.x, e.clientY - panning.last.y);
      panning = { id: panning.id, last: { x: e.clientX, y: e.clientY } };
      return;
    }
    if (!e.isPrimary) return;
    if (!machine.busy) enterHalf(e);
    const p = read(e);
    desk.pointing.cross = null;
    desk.pointing.pointerAt = p.screen;
    over = { ...p, again: false };
    // The button was let go where the page could not hear of it.
    if (machine.busy && e.pointerType === 'mouse' && (e.buttons & 1) === 0) machine.up(p);
    else machine.move(p);
  }
  function up(e: PointerEvent): void {
    letGo();
    if (fingers.up(e)) return;
    if (panning?.id === e.pointerId) panning = null;
    else if (e.isPrimary && e.button === 0) machine.up(read(e));
  }
  function lost(e: PointerEvent): void {
    letGo();
    fingers.up(e);
    panning = null;
    machine.cancel();
  }
  function leave(): void {
    if (machine.busy || panning) return;
    desk.pointing.pointerAt = null;
    over = null;
  }

  function wheel(e: WheelEvent): void {
    e.preventDefault();
    enterHalf(e);
    const p = read(e);
    if (!e.ctrlKey && !e.metaKey && wheelDisc(desk, e.deltaY)) return;
    lookByWheel(desk.looking, e, p.screen);
  }
  $effect(() => {
    if (!element) return;
    // Not passive: the page must not scroll or zoom along.
    const bed = element;
    bed.addEventListener('wheel', wheel, { passive: false });
    return () => bed.removeEventListener('wheel', wheel);
  });

  const cursor = $derived(
    panning ? 'grabbing'
    : desk.pointing.held.has('space') ? 'grab'
    : desk.step === 'block-in' || desk.colouring.sampling || desk.colouring.brush || desk.pointing.held.has('d') || desk.pointing.held.has('t') || desk.pointing.task ? 'crosshair'
    : 'default',
  ); // prettier-ignore
  /** The pointer, or in its place the crosshair that keys move. */
  const pointer = $derived(
    desk.pointing.cross
      ? {
          sheet: desk.pointing.cross,
          screen: toBed(desk.looking.view, desk.pointing.cross),
          shift: false,
          alt: false,
          type: 'mouse' as const,
          time: 0,
          again: false,
        }
      : over,
  );
  $effect(() => {
    desk.pointing.underPointer =
      foresight.kind === 'segment' ? lengthAndRadius(desk, foresight.cubic, foresight.t) : null;
  });
  $effect(() => {
    desk.pointing.overOnBed = nodeForeseen(desk, foresight);
  });
  /** Milliseconds after which a pointer rests, and the turns ahead are told. */
  const RESTS = 140;
  let resting: ReturnType<typeof setTimeout> | undefined;
  $effect(() => {
    clearTimeout(resting);
    if (desk.pointing.pressing) return;
    const p = pointer;
    const ask = p && askReach(desk, p);
    untrack(() => desk.picture.reaching.ask(ask));
    if (ask && p && desk.habits.hints)
      resting = setTimeout(() => {
        if (!desk.pointing.pressing) desk.picture.reaching.ask(askReach(desk, p, TURNS_AHEAD));
      }, RESTS);
  });
  $effect(() => () => clearTimeout(resting));
  const foresight = $derived(desk.pointing.pressing ? ({ kind: 'none' } as const) : foresee(desk, pointer));
  const dataView = $derived(`${desk.looking.view.scale} ${desk.looking.view.tx} ${desk.looking.view.ty}`);
</script>

<svelte:window onblur={leave} onresize={measure} />
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  bind:this={element}
  class="bed"
  role="application"
  aria-label="Bed"
  aria-describedby="bed-says"
  tabindex="0"
  data-view={dataView}
  style:cursor
  onpointerdown={down}
  onpointermove={move}
  onpointerup={up}
  onpointercancel={lost}
  onpointerleave={leave}
  oncontextmenu={(e) => {
    e.preventDefault();
    // A finger held still has listed already.
    if (!('pointerType' in e && e.pointerType === 'touch') && !machine.busy) listAt(e);
  }}
>
  <div class="half" style={halves ? placeOfHalf(halves.drawingFirst) : 'inset:0'}>
    <div class="moving" style:transform>
      <Pictures {desk} view={drawn.view} margin={MARGIN_PX} />
    </div>
    <!-- One layer for both: each more is composited anew on every frame. Only a veil, or a picture between them, needs the fills apart. -->
    <div class="moving" class:veil style:transform>
      <Fills {desk} view={drawn.view} margin={MARGIN_PX} />
      {#if !inksApart}<Inks {desk} view={drawn.view} margin={MARGIN_PX} />{/if}
    </div>
    {#if covered}
      <div class="moving" style:transform>
        <Pictures {desk} view={drawn.view} margin={MARGIN_PX} above />
      </div>
    {/if}
    {#if inksApart}
      <div class="moving" style:transform>
        <Inks {desk} view={drawn.view} margin={MARGIN_PX} />
      </div>
    {/if}
    {#if desk.step === 'refine'}
      {#await import('./Whiskers.svelte') then { default: Whiskers }}
        <Whiskers {desk} />
      {:catch}
        <!-- The server went before they came: the panel tells the drift. -->
      {/await}
    {/if}
    <!-- What the pointer brings about: nothing of it shows before the page does. -->
    {#await import('./Aids.svelte') then { default: Aids }}
      <Aids {desk} {foresight} />
    {:catch}
      <!-- The server went before they came: the lines themselves are seen all the same. -->
    {/await}
    {#if desk.step === 'block-in' || desk.pointing.held.has('t')}
      {#await import('./ReachMarks.svelte') then { default: ReachMarks }}
        <ReachMarks {desk} {foresight} />
      {:catch}
        <!-- The server went before they came: the segment itself is seen all the same. -->
      {/await}
    {/if}
    <Marks {desk} over={pointer} {foresight} />
    {#if desk.step === 'colour' && desk.choosing.receivers.length > 0 && currentGradient(desk)}
      {#await import('./GradientMarks.svelte') then { default: GradientMarks }}
        <GradientMarks {desk} pointer={pointer?.screen ?? null} />
      {:catch}
        <!-- The server went before they came: its fields stand in the panel. -->
      {/await}
    {/if}
    {#if desk.pointing.task?.kind === 'pour' || desk.pointing.task?.kind === 'weed'}
      {#await import('./LineMarks.svelte') then { default: LineMarks }}
        <LineMarks {desk} over={pointer} />
      {:catch}
        <!-- The server went before they came: what is done says so. -->
      {/await}
    {/if}
    {#if desk.comparing.wiped}
      {#await import('./WipeLine.svelte') then { default: WipeLine }}
        {#if desk.comparing.wiped}<WipeLine {desk} wipe={desk.comparing.wiped} />{/if}
      {:catch}
        <!-- The server went before it came: the panel's switch is there. -->
      {/await}
    {/if}
    {#if desk.step === 'proof' && desk.proving.found}
      {#await import('./FindingMarks.svelte') then { default: FindingMarks }}
        <FindingMarks {desk} />
      {:catch}
        <!-- The server went before they came: the panel tells of each. -->
      {/await}
    {/if}
    {#if desk.comparing.mapped}
      {#await import('./DifferenceLayer.svelte') then { default: DifferenceLayer }}
        {#if desk.comparing.mapped}
          <div class="moving" style:transform>
            <DifferenceLayer {desk} view={drawn.view} margin={MARGIN_PX} map={desk.comparing.mapped} />
          </div>
        {/if}
      {:catch}
        <!-- The server went before it came: the panel tells the figures. -->
      {/await}
    {/if}
    {#if halves}
      {#await import('./HalfMark.svelte') then { default: HalfMark }}
        {#if halves}
          <HalfMark
            text="the drawing"
            inset={desk.habits.rulers ? 26 : 8}
            pointer={over && inSecond === halves.drawingFirst ? over.screen : null}
          />
        {/if}
      {:catch}
        <!-- The server went before it came: the halves show what they are. -->
      {/await}
    {/if}
    {#if desk.habits.rulers}
      {#await import('./Rulers.svelte') then { default: Rulers }}
        <Rulers {desk} view={drawn.view} {moved} />
      {:catch}
        <!-- The server went before they came: the bed does without. -->
      {/await}
    {/if}
  </div>
  {#if halves}
    <div
      class="half other"
      class:down={halves.way === 'down'}
      class:second={halves.drawingFirst}
      style={placeOfHalf(!halves.drawingFirst)}
    >
      {#await import('./OtherHalf.svelte') then { default: OtherHalf }}
        {#if halves}
          <OtherHalf
            {desk}
            {halves}
            view={drawn.view}
            margin={MARGIN_PX}
            {transform}
            pointer={over && inSecond !== halves.drawingFirst ? over.screen : null}
          />
        {/if}
      {:catch}
        <p>The other half could not be fetched. Reload the page; nothing is lost.</p>
      {/await}
    </div>
  {/if}
</div>

<style>
  .bed {
    position: relative;
    overflow: hidden;
    background: var(--desk);
    touch-action: none;
    user-select: none;
    outline-width: 1px;
    outline-offset: -1px;
  }
  .half {
    position: absolute;
    overflow: hidden;
  }
  .other {
    pointer-events: none;
    border: 0 solid var(--text);
  }
  .other.second {
    border-left-width: 1px;
  }
  .other.second.down {
    border-width: 1px 0 0;
  }
  .other:not(.second) {
    border-right-width: 1px;
  }
  .other.down:not(.second) {
    border-width: 0 0 1px;
  }
  .moving {
    position: absolute;
    inset: 0;
    transform-origin: 0 0;
    will-change: transform;
    pointer-events: none;
  }
  /* Fills lend the picture their colour; its light and dark stay. */
  .veil {
    mix-blend-mode: color;
  }
</style>
