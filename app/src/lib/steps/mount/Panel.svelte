<script lang="ts">
  import {
    formatLength,
    fromPx,
    meanScale,
    PX_PER,
    setPicture,
    setSheet,
    toPx,
    UNIT_DIGITS,
    UNITS,
    type Unit,
  } from '@mirrot/core';
  import { picturePpi, type Workplace } from '$lib/desk/workplace.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Range from '$lib/ui/Range.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import { ppiVerdict } from './verdict';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const picture = $derived(desk.traced);
  const sheet = $derived(desk.art.sheet);
  const unit = $derived(sheet.unit);
  const ppi = $derived(picture ? picturePpi(picture) : 0);
  const size = $derived(picture ? meanScale(picture.placement) : 1);

  const setSize = (side: 'width' | 'height', value: number): void =>
    void desk.change('Size the sheet', setSheet({ [side]: toPx(value, unit) }));

  // A drag of the slider is one step: it shows as it goes and is kept when it ends.
  let wash: ReturnType<typeof desk.gesture> | null = null;
  function showWash(value: number): void {
    if (!picture) return;
    wash ??= desk.gesture('Wash');
    wash.show(setPicture(picture.id, { wash: value }));
  }
  function keepWash(): void {
    wash?.keep();
    wash = null;
  }
</script>

{#if picture}
  <section>
    <h3 class="panel-title">Picture</h3>
    <dl>
      <dt>pixels</dt>
      <dd>{picture.width} × {picture.height}</dd>
      <dt>on the sheet</dt>
      <dd>
        {fromPx(picture.width * size, unit).toFixed(UNIT_DIGITS[unit])} × {formatLength(
          picture.height * size,
          unit,
        )}
      </dd>
      <dt>effective</dt>
      <dd>{Math.round(ppi)} ppi</dd>
    </dl>
    <p class="quiet">{ppiVerdict(ppi)}</p>
  </section>
  <Range label="Wash" value={picture.wash} change={showWash} settled={keepWash} />
  {#if picture.locked}
    <p class="quiet">
      The picture is locked. Unlock it to move, scale or turn it; it locks itself when another step opens.
    </p>
  {:else}
    <p class="quiet">
      Drag to move, a corner to scale (Shift: freely), outside a corner to turn (Shift: 15° steps).
    </p>
  {/if}
{:else}
  <p class="quiet">No picture lies on the sheet. Add one, paste one, or drop a file on the bed.</p>
{/if}
<section>
  <h3 class="panel-title">Sheet</h3>
  <div class="pair">
    <NumberField
      label="w"
      name="Width of the sheet"
      value={fromPx(sheet.width, unit)}
      {unit}
      digits={UNIT_DIGITS[unit]}
      min={0.1}
      max={100_000}
      change={(v) => setSize('width', v)}
    />
    <NumberField
      label="h"
      name="Height of the sheet"
      value={fromPx(sheet.height, unit)}
      {unit}
      digits={UNIT_DIGITS[unit]}
      min={0.1}
      max={100_000}
      change={(v) => setSize('height', v)}
    />
  </div>
  <Segments
    label="Unit of the sheet"
    value={unit}
    options={UNITS.map((u) => [u, u] as const)}
    change={(u: Unit) => void desk.change('Set the unit', setSheet({ unit: u }))}
  />
  <p class="quiet">{PX_PER.in} px to the inch.</p>
</section>

<style>
  section {
    display: flex;
    flex-direction: column;
    gap: 6px;
  }
  .panel-title {
    margin: 0;
  }
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 2px 10px;
  }
  dt {
    color: var(--quiet);
  }
  dd {
    text-align: right;
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px;
  }
</style>
