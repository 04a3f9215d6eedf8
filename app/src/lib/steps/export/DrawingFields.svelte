<script lang="ts">
  import { fromPx, outputBox, PX_PER, UNITS, type Unit } from '@mirrot/core';
  import { chosenNodes } from '$lib/desk/choice';
  import { holdsLines, isOfLines, mayBeOfLines } from '$lib/desk/exporting';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import LengthField from '$lib/ui/LengthField.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import { rangeNow } from './asking';
  import { MOST_CHOSEN } from './commands';
  import { holdsPictures, isPixels } from './kinds';
  import LineWorkFields from './LineWorkFields.svelte';
  import MachineFields from './MachineFields.svelte';
  import Widths from './Widths.svelte';

  // What of the drawing goes into a file, how large, and how.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const out = $derived(workplace.exporting);
  const box = $derived(outputBox(desk.art, rangeNow(workplace)));
  /** The unit that sizes are typed in: the sheet's until another one is chosen. */
  let chosenUnit = $state<Unit | null>(null);
  const unit = $derived(chosenUnit ?? desk.art.sheet.unit);
  const [width, height] = $derived([(box.x1 - box.x0) * out.scale, (box.y1 - box.y0) * out.scale]);
  const across = $derived((width / PX_PER.in) * out.ppi);
  const chosen = $derived(chosenNodes(desk.choice, desk.art).length);
  const lined = $derived(holdsLines(out));
  /** The smallest and largest size that can be asked for, sheet pixels. */
  const [SMALLEST, LARGEST] = [0.1, 1e6];
  const scaleTo = (px: number, now: number): void => void (out.scale = (out.scale * px) / now);
</script>

<Segments
  label="What goes into the file"
  value={out.area}
  options={[
    ['sheet', 'sheet'],
    ['drawing', 'drawing'],
    ['chosen', 'chosen'],
  ] as const}
  change={(v) => (out.area = v)}
/>
{#if out.area === 'chosen' && chosen === 0}
  <p class="quiet">Nothing is chosen: choose what goes into the file.</p>
{:else if out.area === 'chosen' && chosen > MOST_CHOSEN}
  <p class="quiet">Over {MOST_CHOSEN} things are chosen: group them, which makes them one.</p>
{/if}
{#if out.area !== 'sheet'}
  <LengthField
    {unit}
    label="margin"
    name="Margin about the drawing"
    value={out.margin}
    least={0}
    most={fromPx(10_000, unit)}
    change={(v) => (out.margin = v)}
  />
{/if}
<Segments
  label="How many files"
  value={out.each}
  options={[
    ['one', 'one file'],
    ['layer', 'by layer'],
    ['shape', 'by shape'],
  ] as const}
  change={(v) => (out.each = v)}
/>
<div class="pair">
  <LengthField
    {unit}
    label="w"
    name="Width of the file, w"
    value={width}
    least={fromPx(SMALLEST, unit)}
    most={fromPx(LARGEST, unit)}
    change={(v) => scaleTo(v, width)}
  />
  <LengthField
    {unit}
    label="h"
    name="Height of the file, h"
    value={height}
    least={fromPx(SMALLEST, unit)}
    most={fromPx(LARGEST, unit)}
    change={(v) => scaleTo(v, height)}
  />
</div>
<label class="field">
  <span class="quiet">in</span>
  <select
    aria-label="Unit of the size"
    value={unit}
    onchange={(e) => (chosenUnit = e.currentTarget.value as Unit)}
  >
    {#each UNITS as one (one)}<option value={one}>{one}</option>{/each}
  </select>
</label>
{#if isPixels(out.format)}
  <div class="pair">
    <NumberField label="ppi" value={out.ppi} digits={1} min={1} max={2400} change={(v) => (out.ppi = v)} />
    <NumberField
      label="width"
      value={Math.round(across)}
      unit="px"
      digits={0}
      min={1}
      max={20_000}
      change={(v) => (out.ppi = (v * PX_PER.in) / width)}
    />
  </div>
  <Widths widths={out.widths} change={(widths) => (out.widths = widths)} />
{/if}
{#if mayBeOfLines(out.format)}
  <Toggle label="Hairlines instead of fills" on={out.hairlines} change={(on) => (out.hairlines = on)} />
{/if}
{#if out.format === 'plt'}<MachineFields {workplace} />{/if}
{#if lined}<LineWorkFields {workplace} />{/if}
{#if !isOfLines(out.format)}
  <Segments
    label="Ground"
    value={out.ground === 'clear' ? 'clear' : 'filled'}
    options={[
      ['clear', 'clear ground'],
      ['filled', 'filled'],
    ] as const}
    change={(v) => (out.ground = v === 'clear' ? 'clear' : '#ffffff')}
  />
  {#if out.ground !== 'clear'}
    <label class="field"
      ><span class="quiet">ground</span><input type="color" bind:value={out.ground} /></label
    >
  {/if}
{/if}
{#if holdsPictures(out.format) && !lined}
  <Toggle label="Picture goes along" on={out.picture} change={(on) => (out.picture = on)} />
{/if}
{#if out.format === 'svg'}
  <Toggle label="Paths alone, without names and ids" on={out.plain} change={(on) => (out.plain = on)} />
{/if}
