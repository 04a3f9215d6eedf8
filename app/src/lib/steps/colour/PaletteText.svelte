<script lang="ts">
  import { MirrotError, MOST_CHIPS, readPalette, writePalette, type PaletteForm } from '@mirrot/core';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { addColours } from '$lib/edits/palette';
  import { saveFile } from '$lib/ui/files';
  import Segments from '$lib/ui/Segments.svelte';

  // The palette as text, to be taken elsewhere; and text from elsewhere, to be taken as chips.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  let form: PaletteForm = $state('lines');
  const own = $derived(writePalette(desk.art.chips, form));
  /** What is being written; null while it shows the palette. */
  let written: string | null = $state(null);
  let wrong: string | null = $state(null);
  let file: HTMLInputElement | undefined = $state();
  const ENDINGS = { lines: 'txt', json: 'json', css: 'css' } as const;
  /** Longest text that is read, characters. */
  const LONGEST = 2_000_000;

  function take(text: string): void {
    try {
      if (text.length > LONGEST) throw new MirrotError('palette', 'This is longer than any palette. Nothing was added.'); // prettier-ignore
      addColours(desk, 'Take a palette', readPalette(text, MOST_CHIPS));
      wrong = written = null;
    } catch (error) {
      wrong = error instanceof MirrotError ? error.message : String(error);
    }
  }
</script>

<Segments
  label="How the palette is written"
  value={form}
  options={[
    ['lines', 'lines'],
    ['json', 'JSON'],
    ['css', 'CSS'],
  ] as const}
  change={(v) => {
    form = v;
    written = null;
  }}
/>
<textarea
  aria-label="Palette as text"
  rows="6"
  spellcheck="false"
  value={written ?? own}
  aria-invalid={wrong !== null}
  oninput={(e) => (written = e.currentTarget.value)}
></textarea>
{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
<div class="button-row">
  {#if written !== null}
    <button class="plain-button" onclick={() => take(written ?? '')}>Take these colours</button>
    <button class="plain-button" onclick={() => (wrong = written = null)}>Leave it</button>
  {:else}
    <button
      class="plain-button"
      onclick={() =>
        void navigator.clipboard
          .writeText(own)
          .then(() => desk.say('The palette was copied.', 'good'))
          .catch(() =>
            desk.say('The browser does not let this page copy. Mark the text and copy it by hand.', 'bad'),
          )}>Copy</button
    >
    <button
      class="plain-button"
      onclick={() =>
        saveFile(
          `${workplace.project.name} palette.${ENDINGS[form]}`,
          new Blob([own], { type: 'text/plain' }),
        )}>Save as a file</button
    >
    <button class="plain-button" onclick={() => file?.click()}>From a file</button>
  {/if}
</div>
<input
  bind:this={file}
  type="file"
  accept=".txt,.json,.css,text/*,application/json"
  hidden
  onchange={(e) => {
    const [chosen] = e.currentTarget.files ?? [];
    e.currentTarget.value = '';
    if (chosen && chosen.size > LONGEST) wrong = 'This file is longer than any palette. Nothing was added.';
    else void chosen?.text().then(take);
  }}
/>

<style>
  textarea {
    width: 100%;
    padding: 6px 8px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: light-dark(#ffffff, #22241f);
    color: var(--text);
    font:
      12.5px/1.4 ui-monospace,
      monospace;
    resize: vertical;
  }
  .wrong {
    font-size: 12.5px;
    color: var(--brick);
  }
</style>
