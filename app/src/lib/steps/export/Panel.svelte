<script lang="ts">
  import { outputBox, formatLength, fromPx, PX_PER, UNIT_DIGITS } from '@mirrot/core';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import { previewUrl } from './commands';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const out = $derived(workplace.exporting);
  const box = $derived(outputBox(desk.art, out.area));
  const unit = $derived(desk.art.sheet.unit);
  const across = $derived(((box.x1 - box.x0) / PX_PER.in) * out.ppi);
  const down = $derived(((box.y1 - box.y0) / PX_PER.in) * out.ppi);
  const ready = $derived(workplace.saving.state === 'kept');
  // What the server makes of the drawing as it has it: fetched again when it has another one.
  const preview = $derived.by(() => {
    void desk.art;
    return ready ? previewUrl(workplace) : null;
  });
</script>

<Segments
  label="Kind of file"
  value={out.format}
  options={[
    ['svg', 'SVG'],
    ['png', 'PNG'],
    ['pdf', 'PDF'],
  ] as const}
  change={(v) => (out.format = v)}
/>
<Segments
  label="What goes into the file"
  value={out.area}
  options={[
    ['sheet', 'whole sheet'],
    ['drawing', 'drawing only'],
  ] as const}
  change={(v) => (out.area = v)}
/>
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
  <label class="field"><span class="quiet">ground</span><input type="color" bind:value={out.ground} /></label>
{/if}
{#if out.format === 'png'}
  <div class="pair">
    <NumberField label="ppi" value={out.ppi} digits={1} min={1} max={2400} change={(v) => (out.ppi = v)} />
    <NumberField
      label="width"
      value={Math.round(across)}
      unit="px"
      digits={0}
      min={1}
      max={20_000}
      change={(v) => (out.ppi = (v * PX_PER.in) / (box.x1 - box.x0))}
    />
  </div>
{/if}
<Toggle label="Picture goes along" on={out.picture} change={(on) => (out.picture = on)} />
<p class="quiet">
  {fromPx(box.x1 - box.x0, unit).toFixed(UNIT_DIGITS[unit])} × {formatLength(
    box.y1 - box.y0,
    unit,
  )}{out.format === 'png' ? `, ${Math.round(across)} × ${Math.round(down)} px` : ''}
</p>
<div class="preview clear-ground">
  {#if preview}
    <img src={preview} alt="The file as it will be written" />
  {:else}
    <p>The file can be written once all changes are kept on the server.</p>
  {/if}
</div>

<style>
  .preview {
    display: grid;
    place-items: center;
    min-height: 120px;
    border: 1px solid var(--line);
    border-radius: 6px;
  }
  img {
    max-width: 100%;
    max-height: 220px;
  }
  .preview p {
    padding: 10px;
    background: var(--paper);
  }
</style>
