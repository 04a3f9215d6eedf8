<script lang="ts">
  import { fromPx, meanScale, toPx, UNIT_DIGITS } from '@mirrot/core';
  import { untrack } from 'svelte';
  import { addFont, listFonts } from '$lib/desk/project-api';
  import { sentenceOf, type Workplace } from '$lib/desk/workplace.svelte';
  import { TASK_WORDS } from '$lib/desk/task';
  import { SHIPPED_FONTS } from '$lib/edits/fonts';
  import { changeLettering, chosenLettering, makePaths, turnSide } from '$lib/edits/lettering';
  import { askForFiles } from '$lib/ui/ask';
  import Fold from '$lib/ui/Fold.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import type { FontAnswer } from '$lib/wire';

  // The line of text that is chosen: what it says, and what it is set in.
  let { workplace }: { workplace: Workplace } = $props();
  const { desk, project } = untrack(() => workplace);
  const shape = $derived(chosenLettering(desk));
  const lettering = $derived(shape?.lettering ?? null);
  const unit = $derived(desk.art.sheet.unit);
  const digits = $derived(UNIT_DIGITS[unit]);
  /** How much larger it is on the sheet than before it was placed. */
  const scale = $derived(lettering ? meanScale(lettering.placement) : 1);
  const OWN = 'own file';
  const LARGEST_PX = 100_000;

  let own: readonly FontAnswer[] = $state.raw([]);
  void listFonts(project.id)
    .then((list) => (own = list))
    .catch(() => {});
  const fonts = $derived.by(() => {
    const all: { id: string; name: string }[] = [...SHIPPED_FONTS, ...own];
    // One that is gone is still named: the text was set in it.
    return lettering && !all.some(({ id }) => id === lettering.font.id) ? [...all, lettering.font] : all;
  });

  function choose(id: string): void {
    if (id === OWN) return askForFiles('.ttf,.otf,.woff', ([file]) => void take(file!));
    const font = fonts.find((f) => f.id === id);
    if (font) void changeLettering(desk, { font: { id, name: font.name } }, 'font');
  }
  async function take(file: File): Promise<void> {
    try {
      const font = await addFont(project.id, file);
      own = [...own, font];
      await changeLettering(desk, { font }, 'font');
    } catch (error) {
      desk.say(sentenceOf(error, 'The font could not be added. Nothing was changed.'), 'bad');
    }
  }
  function write(text: string): void {
    if (text.trim() === '') return;
    void changeLettering(desk, { text }, 'text');
  }
</script>

{#if lettering}
  <div class="lettering">
    <Fold title="Lettering" open>
      <div class="fields">
        <input
          type="text"
          dir="auto"
          aria-label="Text"
          maxlength="200"
          value={lettering.text}
          oninput={(e) => write(e.currentTarget.value)}
          onblur={(e) => (e.currentTarget.value = lettering.text)}
          onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
        {#key lettering.font.id}
          <select
            aria-label="Font"
            onchange={(e) => {
              const { value } = e.currentTarget;
              e.currentTarget.value = lettering.font.id;
              choose(value);
            }}
          >
            {#each fonts as font (font.id)}
              <option value={font.id} selected={font.id === lettering.font.id}>{font.name}</option>
            {/each}
            <option value={OWN}>A font file of your own …</option>
          </select>
        {/key}
        <NumberField
          label="size"
          name="Size, an em"
          value={fromPx(lettering.size * scale, unit)}
          {unit}
          {digits}
          min={fromPx(0.1, unit)}
          max={fromPx(LARGEST_PX, unit)}
          change={(v) => void changeLettering(desk, { size: toPx(v, unit) / scale }, 'size')}
        />
        <NumberField
          label="spacing"
          name="Spacing after each character, hundredths of an em"
          value={lettering.spacing * 100}
          unit="%"
          digits={1}
          min={-100}
          max={1000}
          change={(v) => void changeLettering(desk, { spacing: v / 100 }, 'spacing')}
        />
        {#if lettering.along}
          {@const along = lettering.along}
          <NumberField
            label="begins at"
            name="Begins at, along its line"
            value={fromPx(along.start * scale, unit)}
            {unit}
            {digits}
            min={0}
            max={fromPx(LARGEST_PX, unit)}
            change={(v) =>
              void changeLettering(desk, { along: { ...along, start: toPx(v, unit) / scale } }, 'start')}
          />
          <div class="pair">
            <button class="plain-button" onclick={() => turnSide(desk)}>Other side</button>
            <button
              class="plain-button"
              onclick={() => void changeLettering(desk, { along: undefined }, 'along')}>Straight</button
            >
          </div>
        {/if}
        <button
          class="plain-button"
          aria-pressed={desk.pointing.task?.kind === 'stand-on'}
          onclick={() => {
            const on = desk.pointing.task?.kind === 'stand-on';
            desk.pointing.task = on ? null : { kind: 'stand-on' };
            if (!on) desk.say(TASK_WORDS['stand-on']);
          }}>On the line pressed next</button
        >
        <button class="plain-button" onclick={() => makePaths(desk)}>Make it paths</button>
      </div>
    </Fold>
  </div>
{/if}

<style>
  .lettering {
    flex: none;
    max-height: 46%;
    padding: 6px 12px;
    overflow-y: auto;
    border-top: 1px solid var(--line);
  }
  .fields {
    display: flex;
    flex-direction: column;
    gap: 4px;
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 4px;
  }
  .fields :global(.plain-button) {
    padding-block: 2px;
    font-size: 12.5px;
  }
  input,
  select {
    width: 100%;
    min-height: 28px;
    padding: 2px 6px;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--paper);
    color: inherit;
  }
</style>
