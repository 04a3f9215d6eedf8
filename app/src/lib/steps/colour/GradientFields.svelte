<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { GRADIENT_SPREADS, hexOf, type Gradient, type Stop } from '@mirrot/core';
  import { sliderGesture } from '$lib/desk/slider-gesture';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import {
    currentGradient,
    gradientRecipe,
    ordered,
    stopAt,
    withoutStop,
    withStop,
  } from '$lib/edits/painting';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Range from '$lib/ui/Range.svelte';
  import { toning } from './commands';

  // The gradient of what receives colours, stop by stop: the same as its string on the bed.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const gradient = $derived(currentGradient(desk)!);
  const chosen = $derived(stopAt(desk, gradient));
  const stop = $derived(gradient.stops[chosen]!);
  const slider = $derived(sliderGesture(desk));
  const SPREAD_WORDS = {
    pad: 'its ends go on',
    reflect: 'back and forth',
    repeat: 'again and again',
  } as const;

  const change = (label: string, to: (g: Gradient) => Gradient): void =>
    void desk.change(label, gradientRecipe(desk, to));
  const setStop =
    (values: Partial<Stop>) =>
    (g: Gradient): Gradient => ({
      ...g,
      stops: g.stops.map((s, i) => (i === Math.min(chosen, g.stops.length - 1) ? { ...s, ...values } : s)),
    });
  function place(at: number): void {
    const moved = ordered(gradient.stops.map((s, i) => (i === chosen ? { ...s, at } : s)), chosen); // prettier-ignore
    change('Move a stop', (g) => (g === gradient ? { ...g, stops: moved.stops } : g));
    desk.colouring.stop = moved.at;
  }
  function add(): void {
    // In the middle of the gap after the chosen one.
    const next = gradient.stops[chosen + 1] ?? gradient.stops[chosen - 1]!;
    const made = withStop(desk, gradient, (stop.at + next.at) / 2);
    change('Add a stop', (g) => (g === gradient ? made.gradient : g));
    desk.colouring.stop = made.at;
  }
  function remove(): void {
    change('Remove a stop', (g) => withoutStop(g, Math.min(chosen, g.stops.length - 1)));
    desk.colouring.stop = Math.max(0, chosen - 1);
  }
  const turnRound = (g: Gradient): Gradient => ({
    ...g,
    stops: g.stops.map((s) => ({ ...s, at: 1 - s.at })).reverse(),
  });
  const spread =
    (value: string) =>
    (g: Gradient): Gradient => {
      const { spread: _, ...rest } = g;
      return value === 'pad' ? rest : { ...rest, spread: value as NonNullable<Gradient['spread']> };
    };
</script>

<div class="stops" role="group" aria-label="Stops of the gradient">
  {#each gradient.stops as s, i (i)}
    <button
      class="clear-ground"
      aria-pressed={i === chosen}
      aria-label="Stop {i + 1} of {gradient.stops.length}, {hexOf(
        s.colour,
        desk.colouring.palette,
      ).toUpperCase()} at {Math.round(100 * s.at)} %"
      onclick={() => (desk.colouring.stop = i)}
    >
      <i style:background={hexOf(s.colour, desk.colouring.palette)} style:opacity={s.opacity}></i>
    </button>
  {/each}
  <button class="plain-button" onclick={add}>Add a stop</button>
  {#if gradient.stops.length > 2}
    <button
      class="icon-button"
      aria-label="Remove the chosen stop"
      data-tip="Remove the chosen stop"
      onclick={remove}
    >
      <X size={14} strokeWidth={1.75} />
    </button>
  {/if}
</div>
<NumberField
  label="stands at"
  name="Place of the stop"
  value={100 * stop.at}
  unit="%"
  digits={1}
  min={0}
  max={100}
  change={(v) => place(v / 100)}
/>
<Range
  label="Opacity of the stop"
  value={Math.round(100 * stop.opacity)}
  text={stop.opacity === 0 ? 'clear' : `${Math.round(100 * stop.opacity)} %`}
  change={(v) => slider.show('Fade a stop', gradientRecipe(desk, setStop({ opacity: v / 100 })))}
  settled={() => slider.keep()}
/>
<label class="field">
  <span class="quiet">beyond it</span>
  <select
    aria-label="How the gradient goes on"
    value={gradient.spread ?? 'pad'}
    onchange={(e) => change('Spread the gradient', spread(e.currentTarget.value))}
  >
    {#each GRADIENT_SPREADS as one (one)}<option value={one}>{SPREAD_WORDS[one]}</option>{/each}
  </select>
</label>
<div class="button-row">
  <button class="plain-button" onclick={() => change('Turn the gradient round', turnRound)}>Turn round</button
  >
  {#if desk.colouring.receiving === 'fill' && desk.picture.traced}
    <button
      class="plain-button"
      onclick={() => toning(workplace, ({ gradientFromPicture }) => gradientFromPicture(workplace))}
    >
      From the picture
    </button>
  {/if}
</div>

<style>
  .stops {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 5px;
  }
  .stops > .clear-ground {
    width: 28px;
    height: 28px;
    padding: 0;
    overflow: hidden;
    border: 1px solid var(--line);
    border-radius: 6px;
  }
  .stops > [aria-pressed='true'] {
    outline: 2px solid var(--carrot);
    outline-offset: 1px;
  }
  .stops > .plain-button {
    min-height: 28px;
    padding: 0 8px;
    font-size: 13px;
  }
  i {
    display: block;
    width: 100%;
    height: 100%;
  }
</style>
