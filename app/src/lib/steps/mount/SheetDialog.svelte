<script lang="ts">
  import {
    boxHeight,
    boxWidth,
    paintedBox,
    paintList,
    fromPx,
    isEmptyBox,
    setSheet,
    shiftAll,
    together,
    toPx,
    UNIT_DIGITS,
    UNITS,
    type Unit,
  } from '@mirrot/core';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Modal from '$lib/ui/Modal.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import { SHEETS } from './sheets';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const sheet = $derived(desk.art.sheet);
  const unit = $derived(sheet.unit);
  let margin = $state(0);

  const box = $derived(paintedBox(paintList(desk.art)));
  const preset = $derived(
    SHEETS.find(
      (s) =>
        Math.abs(toPx(s.width, s.unit) - sheet.width) < 0.01 &&
        Math.abs(toPx(s.height, s.unit) - sheet.height) < 0.01,
    )?.name ?? '',
  );
  function take(name: string): void {
    const s = SHEETS.find((one) => one.name === name);
    if (s)
      desk.change(
        `Sheet: ${s.name}`,
        setSheet({ width: toPx(s.width, s.unit), height: toPx(s.height, s.unit), unit: s.unit }),
      );
  }
  function toDrawing(): void {
    const m = toPx(margin, unit);
    desk.change(
      'Sheet to the drawing',
      together(
        setSheet({ width: boxWidth(box) + 2 * m, height: boxHeight(box) + 2 * m }),
        shiftAll({ x: m - box.x0, y: m - box.y0 }),
      ),
    );
    desk.looking.fit();
  }
</script>

<Modal open={workplace.dialog === 'sheet'} title="Sheet" close={() => (workplace.dialog = null)} width={460}>
  <div class="rows">
    <label class="field">
      <span class="quiet">size</span>
      <select aria-label="Size by name" value={preset} onchange={(e) => take(e.currentTarget.value)}>
        <option value="">own size</option>
        {#each SHEETS as s (s.name)}<option value={s.name}>{s.name}</option>{/each}
      </select>
    </label>
    <div class="pair">
      <NumberField
        label="w"
        name="Width of the sheet"
        value={fromPx(sheet.width, unit)}
        {unit}
        digits={UNIT_DIGITS[unit]}
        min={0.01}
        max={100_000}
        change={(v) => void desk.change('Size the sheet', setSheet({ width: toPx(v, unit) }))}
      />
      <NumberField
        label="h"
        name="Height of the sheet"
        value={fromPx(sheet.height, unit)}
        {unit}
        digits={UNIT_DIGITS[unit]}
        min={0.01}
        max={100_000}
        change={(v) => void desk.change('Size the sheet', setSheet({ height: toPx(v, unit) }))}
      />
    </div>
    <Segments
      label="Unit of the sheet"
      value={unit}
      options={UNITS.map((u) => [u, u] as const)}
      change={(u: Unit) => void desk.change('Set the unit', setSheet({ unit: u }))}
    />
    <div class="pair">
      <NumberField
        label="ppi"
        name="Pixels to the inch for print"
        value={sheet.ppi}
        digits={1}
        min={1}
        max={4800}
        change={(v) => void desk.change('Set the ppi', setSheet({ ppi: v }))}
      />
      <button
        class="plain-button"
        onclick={() =>
          void desk.change('Turn the sheet', setSheet({ width: sheet.height, height: sheet.width }))}
        >Upright or across</button
      >
    </div>
    <Toggle
      label="Coloured ground"
      on={sheet.ground !== null}
      change={(on) => void desk.change('Set the ground', setSheet({ ground: on ? '#fbf7ee' : null }))}
    />
    {#if sheet.ground}
      <label class="field">
        <span class="quiet">ground</span>
        <input
          type="color"
          value={sheet.ground}
          onchange={(e) => void desk.change('Set the ground', setSheet({ ground: e.currentTarget.value }))}
        />
      </label>
    {/if}
    <p class="quiet">The drawing and the pictures stay where they are when the size changes.</p>
    {#if !isEmptyBox(box)}
      <div class="pair">
        <NumberField
          label="margin"
          name="Margin round the drawing"
          value={margin}
          {unit}
          digits={UNIT_DIGITS[unit]}
          min={0}
          max={10_000}
          change={(v) => (margin = v)}
        />
        <button class="plain-button" onclick={toDrawing}>Sheet to the drawing</button>
      </div>
    {/if}
  </div>
</Modal>

<style>
  .rows {
    display: flex;
    flex-direction: column;
    gap: 10px;
  }
</style>
