<script lang="ts">
  import {
    formStrokes,
    fromPx,
    PX_PER,
    STROKE_ENDS,
    STROKE_JOINS,
    UNIT_DIGITS,
    type LineForm,
    type Stroke,
  } from '@mirrot/core';
  import { isOffered } from '$lib/desk/command';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import { command } from '../commands';
  import { readDashes } from './dashes';

  // The form of the lines of what receives colours: weight, ends, joins, dashes, and whether they lie over the fill.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const shape = $derived(desk.choosing.receivedShape);
  const stroke = $derived(shape?.stroke ?? null);
  const unit = $derived(desk.art.sheet.unit);
  const inUnit = (px: number): number => fromPx(px, unit);

  const ENDS = { butt: 'flat', round: 'round', square: 'square' } as const satisfies Record<Stroke['ends'], string>; // prettier-ignore
  const JOINS = { miter: 'pointed', round: 'round', bevel: 'cut off' } as const satisfies Record<Stroke['joins'], string>; // prettier-ignore
  const form = (label: string, values: LineForm): void =>
    void desk.change(label, formStrokes(desk.choosing.receivers, values));

  let wrong: string | null = $state(null);
  function setDashes(text: string): void {
    const read = readDashes(text, PX_PER[unit]);
    if (typeof read === 'string') wrong = read;
    else {
      wrong = null;
      form('Dash the line', { dash: read, ...(read.length === 0 && { dashOffset: undefined }) });
    }
  }
  const dashes = $derived(stroke?.dash.map((v) => Number(inUnit(v).toFixed(UNIT_DIGITS[unit] + 1))).join(' ') ?? ''); // prettier-ignore
</script>

{#if shape}
  <Fold
    title="Line"
    figure={stroke ? `${Number(inUnit(stroke.width).toFixed(UNIT_DIGITS[unit]))} ${unit}` : 'none'}
    open={desk.colouring.receiving === 'stroke'}
  >
    {#if stroke}
      <NumberField
        label="weight"
        value={inUnit(stroke.width)}
        {unit}
        digits={UNIT_DIGITS[unit]}
        min={0.001}
        max={10_000}
        change={(v) => form('Set the weight', { width: v * PX_PER[unit] })}
      />
      <span class="quiet">ends</span>
      <Segments
        label="Ends of the line"
        value={stroke.ends}
        options={STROKE_ENDS.map((e) => [e, ENDS[e]] as const)}
        change={(ends) => ends !== stroke.ends && form('Set the ends', { ends })}
      />
      <span class="quiet">joins</span>
      <Segments
        label="Joins of the line"
        value={stroke.joins}
        options={STROKE_JOINS.map((j) => [j, JOINS[j]] as const)}
        change={(joins) => joins !== stroke.joins && form('Set the joins', { joins })}
      />
      {#if stroke.joins === 'miter'}
        <NumberField
          label="points up to"
          name="Miter limit"
          value={stroke.miterLimit}
          unit="half weights"
          digits={1}
          min={1}
          max={1000}
          change={(miterLimit) => form('Set the miter limit', { miterLimit })}
        />
      {/if}
      <div class="button-row">
        <button
          class="plain-button"
          disabled={stroke.ends === 'round' && stroke.joins === 'round'}
          onclick={() => form('Round all ends and joins', { ends: 'round', joins: 'round' })}
        >
          Round all
        </button>
        {#if isOffered(command('measure-weight'), workplace)}
          <button class="plain-button" onclick={() => command('measure-weight').run(workplace)}>
            Measure weight
          </button>
        {/if}
      </div>
      <label class="field">
        <span class="quiet">dashes and gaps</span>
        <input
          type="text"
          inputmode="decimal"
          autocomplete="off"
          value={dashes}
          placeholder="whole"
          aria-invalid={wrong !== null}
          onchange={(e) => setDashes(e.currentTarget.value)}
          onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
        <span class="quiet">{unit}</span>
      </label>
      {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
      {#if stroke.dash.length > 0}
        <NumberField
          label="begins after"
          name="Dash offset, begins after"
          value={inUnit(stroke.dashOffset ?? 0)}
          {unit}
          digits={UNIT_DIGITS[unit]}
          min={-10_000}
          max={10_000}
          change={(v) => form('Shift the dashes', { dashOffset: v === 0 ? undefined : v * PX_PER[unit] })}
        />
      {/if}
      {#if shape.fill}
        <Toggle
          label="Fill over the line"
          on={stroke.under === true}
          change={(on) => form('Order fill and line', { under: on ? true : undefined })}
        />
      {/if}
    {:else}
      <p class="quiet">It has no line. Choose “stroke” above, then “flat”.</p>
      {#if isOffered(command('measure-weight'), workplace)}
        <button class="plain-button" onclick={() => command('measure-weight').run(workplace)}>
          Measure weight
        </button>
      {/if}
    {/if}
  </Fold>
{/if}

<style>
  .wrong {
    font-size: 12.5px;
    color: var(--brick);
  }
  .quiet {
    font-size: 12.5px;
  }
</style>
