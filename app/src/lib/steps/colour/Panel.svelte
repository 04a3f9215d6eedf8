<script lang="ts">
  import { isOffered } from '$lib/desk/command';
  import { command } from '../commands';
  import X from '@lucide/svelte/icons/x';
  import {
    chipsOf,
    formatHex,
    fromPx,
    MirrotError,
    normaliseHex,
    oklabToOklch,
    oklchToOklab,
    oklabToRgb,
    paintShapes,
    parseHex,
    PX_PER,
    removeChip,
    rgbToOklab,
    shapesOf,
    styleShapes,
    UNIT_DIGITS,
    weighStrokes,
    type Colour,
    type Oklch,
    type PaintTarget,
  } from '@mirrot/core';
  import { applyColour, FIRST_WEIGHT } from '$lib/bed/sampling';
  import { sliderGesture } from '$lib/desk/slider-gesture';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Range from '$lib/ui/Range.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import { currentColour } from './commands';
  import { receiverInWords } from '$lib/desk/receivers';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const colour = $derived(currentColour(desk));
  const shape = $derived(desk.choosing.receivedShape);
  const unit = $derived(desk.art.sheet.unit);

  const lch: Oklch = $derived(oklabToOklch(rgbToOklab(parseHex(colour ?? '#8a8272'))));
  // What is being dragged: the colour written down is clamped to sRGB, the sliders are not.
  let dragged: Oklch | null = $state.raw(null);
  const shown = $derived(dragged ?? lch);
  const hexOf = (c: Oklch): string => formatHex(oklabToRgb(oklchToOklab(c)));
  const ramp = (at: (t: number) => Oklch): string =>
    `linear-gradient(to right, ${Array.from({ length: 9 }, (_, i) => hexOf(at(i / 8))).join(', ')})`;

  const slider = $derived(sliderGesture(desk));
  function show(c: Oklch): void {
    dragged = c;
    const hex = hexOf(c);
    const { receivers } = desk.choosing;
    const { receiving } = desk.colouring;
    if (receivers.length === 0) {
      if (receiving === 'fill') desk.colouring.nextFill = { hex };
      return;
    }
    slider.show(`Colour the ${receiving}`, paintShapes(receivers, receiving, { hex }, FIRST_WEIGHT));
  }
  function settle(): void {
    slider.keep();
    dragged = null;
  }

  let wrong: string | null = $state(null);
  function typed(input: HTMLInputElement): void {
    try {
      applyColour(desk, { hex: normaliseHex(input.value) });
      wrong = null;
    } catch (error) {
      wrong = error instanceof MirrotError ? `${error.message} Nothing was changed.` : String(error);
    }
  }

  const uses = $derived.by(() => {
    const n = new Map<string, number>();
    for (const { shape: s } of shapesOf(desk.art))
      for (const chip of chipsOf(s)) n.set(chip, (n.get(chip) ?? 0) + 1);
    return n;
  });
  /** A shape's first fill where no chip is there, and its first stroke's colour. */
  const FIRST_FILL = '#2f6b4f';
  const FIRST_INK = '#2a2722';
  const turn = (what: PaintTarget, on: boolean): void => {
    const [chip] = desk.art.chips;
    const first: Colour =
      what === 'stroke'
        ? { hex: FIRST_INK }
        : (desk.colouring.nextFill ?? (chip ? { chip: chip.id } : { hex: FIRST_FILL }));
    const { receivers } = desk.choosing;
    desk.change(
      `${on ? 'Put a' : 'Take the'} ${what} ${on ? 'on' : 'off'}`,
      on
        ? paintShapes(receivers, what, first, FIRST_WEIGHT)
        : styleShapes(receivers, what === 'fill' ? { fill: null } : { stroke: null }),
    );
  };
  const setWeight = (width: number): void => {
    if (shape?.stroke)
      desk.change('Set the weight', weighStrokes(desk.choosing.receivers, width * PX_PER[unit]));
  };
</script>

<h3 class="panel-title">Colour <span dir="auto">{receiverInWords(desk)}</span></h3>
<Segments
  label="What receives colours"
  value={desk.colouring.receiving}
  options={[
    ['fill', 'fill'],
    ['stroke', 'stroke'],
  ] as const}
  change={(v) => (desk.colouring.receiving = v)}
/>
{#if shape}
  <Toggle label="Fill" on={shape.fill !== null} change={(on) => turn('fill', on)} />
  <Toggle label="Stroke" on={shape.stroke !== null} change={(on) => turn('stroke', on)} />
  {#if shape.stroke}
    <NumberField
      label="weight"
      value={fromPx(shape.stroke.width, unit)}
      {unit}
      digits={UNIT_DIGITS[unit]}
      min={0.001}
      max={10_000}
      change={setWeight}
    />
  {/if}
  {#if isOffered(command('measure-weight'), workplace)}
    <button class="plain-button" onclick={() => command('measure-weight').run(workplace)}
      >Measure weight</button
    >
  {/if}
{/if}

<!-- Of a shape that has been shaped since, nothing is known any more. -->
{#if shape && desk.colouring.tone?.shape.id === shape.id && desk.colouring.tone.shape.paths === shape.paths}
  {#await import('./ToneFields.svelte') then { default: ToneFields }}
    <ToneFields {workplace} />
  {:catch}<!-- the offer itself stands above the bed -->{/await}
{/if}
<label class="field">
  <i class:clear-ground={!colour} style:background={colour}></i>
  <span class="quiet">hex</span>
  <input
    type="text"
    spellcheck="false"
    autocomplete="off"
    value={colour?.toUpperCase() ?? ''}
    placeholder="none"
    aria-invalid={wrong !== null}
    onchange={(e) => typed(e.currentTarget)}
    onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
  />
</label>
{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
<div class="lch" role="group" aria-label="Colour field">
  <Range
    label="Lightness"
    value={Math.round(shown[0] * 100)}
    track={ramp((t) => [t, shown[1], shown[2]])}
    change={(v) => show([v / 100, shown[1], shown[2]])}
    settled={settle}
  />
  <Range
    label="Chroma"
    value={Math.round(shown[1] * 1000)}
    max={370}
    text={shown[1].toFixed(2)}
    track={ramp((t) => [shown[0], t * 0.37, shown[2]])}
    change={(v) => show([shown[0], v / 1000, shown[2]])}
    settled={settle}
  />
  <Range
    label="Hue"
    value={Math.round(shown[2])}
    max={360}
    text="{Math.round(shown[2])}°"
    track={ramp((t) => [shown[0], Math.max(shown[1], 0.08), t * 360])}
    change={(v) => show([shown[0], shown[1], v])}
    settled={settle}
  />
</div>

{#if desk.colouring.sampling}
  <p class="quiet">
    {desk.colouring.sampling === 'pixel'
      ? 'Click the picture for one pixel’s colour, a fill for its exact colour.'
      : 'Press for the centre, drag the radius, release takes the middle value.'}
  </p>
  {#if desk.colouring.sampling === 'disc'}
    <Range
      label="Disc for a click"
      value={desk.colouring.discRadius}
      min={1}
      max={60}
      text="{desk.colouring.discRadius} px radius"
      change={(v) => (desk.colouring.discRadius = v)}
    />
  {/if}
{/if}

<section aria-label="Chips">
  <h3 class="panel-title">Chips <span>{desk.art.chips.length}</span></h3>
  {#if desk.art.chips.length === 0}
    <p class="quiet">No chips yet. Sample a colour, then “Keep as a chip”.</p>
  {/if}
  <ul>
    {#each desk.art.chips as chip (chip.id)}
      <li>
        <button
          class="apply"
          onclick={() => applyColour(desk, { chip: chip.id })}
          data-tip="Give {chip.hex.toUpperCase()} to {receiverInWords(desk)}"
        >
          <i style:background={chip.hex}></i>
          <span class="words" dir="auto">{chip.name || chip.hex.toUpperCase()}</span>
          <span class="quiet">{uses.get(chip.id) ?? 0} in use</span>
        </button>
        <button
          class="icon-button"
          aria-label="Remove the chip {chip.name || chip.hex.toUpperCase()}"
          data-tip="Remove the chip"
          onclick={() => void desk.change('Remove a chip', removeChip(chip.id))}
        >
          <X size={14} strokeWidth={1.75} />
        </button>
      </li>
    {/each}
  </ul>
</section>

<style>
  i {
    flex: none;
    width: 18px;
    height: 18px;
    border: 1px solid var(--line);
    border-radius: 5px;
  }
  .wrong {
    font-size: 12.5px;
    color: var(--brick);
  }
  li {
    display: flex;
    align-items: center;
  }
  .apply {
    display: flex;
    flex: 1;
    align-items: center;
    gap: 8px;
    min-width: 0;
    min-height: 28px;
    padding: 0 4px;
    border-radius: 6px;
    text-align: start;
  }
  .apply:hover {
    background: var(--ledge);
  }
  .words {
    flex: 1;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
</style>
