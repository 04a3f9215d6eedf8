<script lang="ts">
  import { formatLength, leftOut, outputBox, PX_PER } from '@mirrot/core';
  import { untrack } from 'svelte';
  import { chosenNodes } from '$lib/desk/choice';
  import { holdsLines, isOfDrawing } from '$lib/desk/exporting';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import { linesNow, previewUrl, rangeNow } from './asking';
  import { MOST_CHOSEN } from './commands';
  import { proveWhileShown } from '../prove.svelte';
  import DrawingFields from './DrawingFields.svelte';
  import { isPixels, KINDS, leftOutWords, nameOf } from './kinds';
  import LinesPreview from './LinesPreview.svelte';
  import MadeFor from './MadeFor.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const out = $derived(workplace.exporting);
  const range = $derived(rangeNow(workplace));
  const box = $derived(outputBox(desk.art, range));
  const unit = $derived(desk.art.sheet.unit);
  const [width, height] = $derived([(box.x1 - box.x0) * out.scale, (box.y1 - box.y0) * out.scale]);
  const pixels = $derived([width, height].map((v) => Math.round((v / PX_PER.in) * out.ppi)));
  const ready = $derived(workplace.saving.state === 'kept');
  const chosen = $derived(chosenNodes(desk.choice, desk.art).length);
  proveWhileShown(() => workplace);
  const findings = $derived(desk.proving.open?.length ?? 0);
  const lined = $derived(holdsLines(out));
  const left = $derived.by(() => {
    if (!isOfDrawing(out.format)) return [];
    // Hairlines leave out what files of lines do.
    const kind = lined ? 'dxf' : out.format;
    const layers = desk.art.layers.filter(({ id }) => lined && out.lines.uses[id] === 'none').length;
    return [
      ...leftOutWords(leftOut(desk.art, kind, { ...range, pictures: out.picture }), kind, out.area),
      ...(layers > 0 ? [`${layers} ${layers === 1 ? 'layer' : 'layers'} set to be left out`] : []),
    ];
  });
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
</script>

<MadeFor {workplace} />
<div class="preview" class:clear-ground={!lined && isOfDrawing(out.format)}>
  {#if out.format === 'zip'}
    <p>
      Drawing, pictures, fonts, kept copies and how it grew, in one zip file: put it on a shelf, and all of it
      is there.
    </p>
  {:else if out.format === 'txt'}
    {#if desk.art.chips.length === 0}<p>The palette has no chip yet.</p>{/if}
    <ul class="chips">
      {#each desk.art.chips as { id, hex, name } (id)}
        <li style:background={hex} data-tip="{name} {hex}"></li>
      {/each}
    </ul>
  {:else if lined}
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
{#if isOfDrawing(out.format)}
  <p class="quiet">
    {formatLength(width, unit)} × {formatLength(height, unit)}{isPixels(out.format)
      ? `, ${pixels.join(' × ')} px`
      : ''}{Math.abs(out.scale - 1) > 1e-9 ? `, ${Number((100 * out.scale).toFixed(1))} %` : ''}
  </p>
{/if}
{#if left.length > 0}
  <Fold title="Not in the file" figure={`${left.length}`} open>
    <ul>
      {#each left as words (words)}<li>{words}</li>{/each}
    </ul>
  </Fold>
{/if}
{#if findings > 0}
  <button class="plain-button" onclick={() => desk.open('proof')}>
    {findings}
    {findings === 1 ? 'finding' : 'findings'} in Proof
  </button>
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
{#if isOfDrawing(out.format)}<DrawingFields {workplace} />{/if}

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
  .chips {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
    padding: 8px;
    list-style: none;
  }
  .chips li {
    width: 20px;
    height: 20px;
    border-radius: 4px;
  }
  ul {
    margin: 0;
    padding-left: 18px;
  }
</style>
