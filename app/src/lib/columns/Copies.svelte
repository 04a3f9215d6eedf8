<script lang="ts">
  import {
    FARTHEST_COORDINATE,
    fromPx,
    isWholeRing,
    MOST_COPIES,
    toDegrees,
    toPx,
    toRadians,
    UNIT_DIGITS,
    WHOLE_TURN,
  } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { changeCount, changeRepeat, partChosen, repeatedGroup } from '$lib/edits/repeating';
  import Fold from '$lib/ui/Fold.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';

  // The numbers of the group that stands several times.
  let { desk }: { desk: Desk } = $props();
  const group = $derived(repeatedGroup(desk));
  const repeat = $derived(group?.repeat ?? null);
  const unit = $derived(desk.art.sheet.unit);
  const digits = $derived(UNIT_DIGITS[unit]);
  const length = (px: number): number => fromPx(px, unit);
  /** As far as a drawing reaches, in the sheet's unit. */
  const far = $derived(length(FARTHEST_COORDINATE));
  const whole = $derived(repeat?.kind === 'ring' && isWholeRing(repeat));
  const steps = $derived((repeat?.count ?? 2) - 1);
</script>

{#if group && repeat}
  <div class="copies">
    <Fold title="Copies" figure={`${repeat.count}`}>
      <div class="fields">
        <NumberField
          label="how many"
          name="How many, with the first"
          value={repeat.count}
          digits={0}
          min={2}
          max={MOST_COPIES}
          change={(v) => changeCount(desk, Math.round(v))}
        />
        {#if repeat.kind === 'row'}
          <NumberField
            label="across"
            name="From one to the next, across"
            value={length(repeat.x)}
            {unit}
            {digits}
            min={-far}
            max={far}
            change={(v) => changeRepeat(desk, { x: toPx(v, unit) }, 'x')}
          />
          <NumberField
            label="down"
            name="From one to the next, down"
            value={length(repeat.y)}
            {unit}
            {digits}
            min={-far}
            max={far}
            change={(v) => changeRepeat(desk, { y: toPx(v, unit) }, 'y')}
          />
          <NumberField
            label="in all"
            name="From the first to the last"
            value={length(Math.hypot(repeat.x, repeat.y) * steps)}
            {unit}
            {digits}
            min={0}
            max={far}
            change={(v) => {
              const now = Math.hypot(repeat.x, repeat.y);
              const k = toPx(v, unit) / steps;
              changeRepeat(
                desk,
                now > 0 ? { x: (repeat.x / now) * k, y: (repeat.y / now) * k } : { x: k, y: 0 },
                'total',
              );
            }}
          />
        {:else}
          <NumberField
            label="angle"
            name="From one to the next, degrees"
            value={toDegrees(repeat.angle)}
            unit="°"
            digits={2}
            min={-360}
            max={360}
            change={(v) => changeRepeat(desk, { angle: toRadians(v) }, 'angle')}
          />
          <NumberField
            label="leave out every"
            name="Leave out every n-th; 0 for none"
            value={repeat.without ?? 0}
            digits={0}
            min={0}
            max={MOST_COPIES}
            change={(v) => changeRepeat(desk, { without: v >= 2 ? Math.round(v) : undefined }, 'without')}
          />
          <NumberField
            label="centre x"
            name="Centre, across"
            value={length(repeat.x)}
            {unit}
            {digits}
            min={-far}
            max={far}
            change={(v) => changeRepeat(desk, { x: toPx(v, unit) }, 'x')}
          />
          <NumberField
            label="centre y"
            name="Centre, down"
            value={length(repeat.y)}
            {unit}
            {digits}
            min={-far}
            max={far}
            change={(v) => changeRepeat(desk, { y: toPx(v, unit) }, 'y')}
          />
          <Toggle
            label="all the way round"
            on={whole}
            change={(on) =>
              changeRepeat(desk, { angle: on ? WHOLE_TURN / repeat.count : toRadians(30) }, 'whole')}
          />
          <Toggle
            label="kept upright"
            on={repeat.upright === true}
            change={(on) => changeRepeat(desk, { upright: on ? true : undefined }, 'upright')}
          />
        {/if}
        <button class="plain-button" onclick={() => partChosen(desk)}>Part the copies</button>
      </div>
    </Fold>
  </div>
{/if}

<style>
  .copies {
    flex: none;
    max-height: 46%;
    padding: 6px 12px;
    overflow-y: auto;
    border-top: 1px solid var(--line);
  }
  .fields {
    display: flex;
    flex-direction: column;
    gap: 6px;
  }
</style>
