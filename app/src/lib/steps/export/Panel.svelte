<script lang="ts">
  import { formatLength, fromPx, leftOut, outputBox, PX_PER } from '@mirrot/core';
  import { chosenNodes } from '$lib/desk/choice';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import LengthField from '$lib/ui/LengthField.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import { untrack } from 'svelte';
  import { holdsLines, isOfLines, mayBeOfLines } from '$lib/desk/exporting';
  import { linesNow, MOST_CHOSEN, previewUrl, rangeNow } from './commands';
  import LinesPreview from './LinesPreview.svelte';
  import LineWorkFields from './LineWorkFields.svelte';
  import MachineFields from './MachineFields.svelte';
  import { holdsPictures, isPixels, KINDS, leftOutWords, nameOf, USES, useOf } from './kinds';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const out = $derived(workplace.exporting);
  const range = $derived(rangeNow(workplace));
  const box = $derived(outputBox(desk.art, range));
  const unit = $derived(desk.art.sheet.unit);
  const [width, height] = $derived([(box.x1 - box.x0) * out.scale, (box.y1 - box.y0) * out.scale]);
  const across = $derived((width / PX_PER.in) * out.ppi);
  const down = $derived((height / PX_PER.in) * out.ppi);
  const ready = $derived(workplace.saving.state === 'kept');
  const chosen = $derived(chosenNodes(desk.choice, desk.art).length);
  const left = $derived(
    leftOutWords(leftOut(desk.art, out.format, { ...range, pictures: out.picture }), out.format, out.area),
  );
  const lined = $derived(holdsLines(out));
  const { lineMaking } = $derived(workplace);
  // Lines are made ready here, of the drawing as it is.
  const wish = $derived(out.area === 'chosen' && chosen === 0 ? null : linesNow(workplace));
  const makeLines = (): void =>
    void (wish && lineMaking.make(workplace, desk.drawing.kept, $state.snapshot(wish) as typeof wish));
  $effect(() => {
    void [wish, desk.drawing.kept];
    untrack(makeLines);
  });
  // What the server makes of the drawing as it has it: fetched again when it has another one.
  const preview = $derived.by(() => {
    void desk.art;
    return ready && !lined && !(out.area === 'chosen' && chosen > MOST_CHOSEN) ? previewUrl(workplace) : null;
  });
  /** The smallest and largest size that can be asked for, sheet pixels. */
  const [SMALLEST, LARGEST] = [0.1, 1e6];
  const scaleTo = (px: number, now: number): void => void (out.scale = (out.scale * px) / now);
</script>

<label class="field">
  <span class="quiet">made for</span>
  <select
    aria-label="What the file is made for"
    value={useOf(out) ?? ''}
    onchange={(e) => Object.assign(out, USES.find(([use]) => use === e.currentTarget.value)?.[1])}
  >
    <option value="">as set below</option>
    {#each USES as [use] (use)}<option value={use}>{use}</option>{/each}
  </select>
</label>
<div class="preview" class:clear-ground={!lined}>
  {#if lined}
    {#if lineMaking.trouble}
      <p>{lineMaking.trouble} <button class="plain-button" onclick={makeLines}>Once more</button></p>
    {:else if lineMaking.made}
      <LinesPreview made={lineMaking.made} name="The {nameOf(out.format)} file as it will be written" />
    {:else}
      <p>The lines are being made ready.</p>
    {/if}
  {:else if preview}
    <img src={preview} alt="The {nameOf(out.format)} file as it will be written" />
  {:else}
    <p>The file can be written once all changes are kept on the server.</p>
  {/if}
</div>
<p class="quiet">
  {formatLength(width, unit)} × {formatLength(height, unit)}{isPixels(out.format)
    ? `, ${Math.round(across)} × ${Math.round(down)} px`
    : ''}{Math.abs(out.scale - 1) > 1e-9 ? `, ${Number((100 * out.scale).toFixed(1))} %` : ''}
</p>
{#if left.length > 0}
  <Fold title="Not in the file" figure={`${left.length}`} open>
    <ul>
      {#each left as words (words)}<li>{words}</li>{/each}
    </ul>
  </Fold>
{/if}
<fieldset class="kinds">
  <legend class="sr-only">Kind of file</legend>
  {#each KINDS as [kind, name, use] (kind)}
    <label class:on={out.format === kind}>
      <input type="radio" name="kind-of-file" value={kind} bind:group={out.format} />
      <b>{name}</b><span class="quiet">{use}</span>
    </label>
  {/each}
</fieldset>
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

<style>
  .kinds {
    display: flex;
    flex-direction: column;
    min-width: 0;
    margin: 0;
    padding: 0;
    border: 0;
  }
  .kinds label {
    display: flex;
    align-items: baseline;
    gap: 8px;
    min-height: 26px;
    padding: 2px 6px;
    border-radius: 6px;
    cursor: pointer;
  }
  .kinds label.on {
    background: var(--carrot-wash);
  }
  .kinds label:focus-within {
    outline: 2px solid var(--carrot);
  }
  .kinds input {
    position: absolute;
    opacity: 0;
  }
  .kinds b {
    flex: none;
    width: 48px;
  }
  .kinds span {
    min-width: 0;
    overflow: hidden;
    font-size: 12px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .preview {
    display: grid;
    place-items: center;
    min-height: 100px;
    border: 1px solid var(--line);
    border-radius: 6px;
  }
  img {
    max-width: 100%;
    max-height: 150px;
  }
  .preview p {
    padding: 10px;
    background: var(--paper);
  }
  ul {
    margin: 0;
    padding-left: 18px;
  }
</style>
