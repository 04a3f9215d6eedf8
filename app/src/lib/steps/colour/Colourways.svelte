<script lang="ts">
  import {
    keepColourway,
    MOST_COLOURWAYS,
    numberedName,
    removeColourway,
    suggestColourways,
    takeHexes,
    writeColourways,
    writeSvg,
    recolourChips,
    type Colourway,
    type Recolouring,
  } from '@mirrot/core';
  import Bookmark from '@lucide/svelte/icons/bookmark';
  import Trash from '@lucide/svelte/icons/trash-2';
  import Columns from '@lucide/svelte/icons/columns-2';
  import { newId } from '$lib/ids';
  import { passingOffer } from '$lib/desk/passing';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { hexesById, putOnColourway } from '$lib/edits/palette';
  import { saveFile } from '$lib/ui/files';
  import ColourwayPicture from './ColourwayPicture.svelte';
  import { colourwayFile } from './colourway-file';
  import { toning } from './commands';

  // Kept and suggested colourways, each as the drawing in miniature over a strip as long as the palette.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const kept = $derived(desk.drawing.kept);
  const ids = $derived(kept.chips.map((c) => c.id));
  const now = $derived(kept.chips.map((c) => c.hex));

  interface Shown {
    readonly key: string;
    readonly name: string;
    readonly hexes: readonly string[];
    readonly way: Colourway | null;
  }
  const own: Shown[] = $derived(
    kept.colourways.map((way) => ({
      key: way.id,
      name: way.name,
      hexes: kept.chips.map((chip) => way.hexes[chip.id] ?? chip.hex),
      way,
    })),
  );
  /** Colours taken from another picture of the project. */
  let taken: Recolouring | null = $state.raw<Recolouring | null>(null);
  const offered: Shown[] = $derived(
    [
      ...(taken ? [{ name: taken.name, hexes: takeHexes(now, taken.hexes) }] : []),
      ...suggestColourways(now),
    ].map((s) => ({ ...s, key: s.name, way: null })),
  );
  /** The drawing with a mark in the place of each chip's colour: written once, it is coloured for each of them. */
  const markOf = (i: number): string => `chip-${i}-colour`;
  const template = $derived(
    writeSvg(
      { ...kept, chips: kept.chips.map((chip, i) => ({ ...chip, hex: markOf(i) })) },
      { area: 'drawing' },
    ),
  );
  const drawn = (hexes: readonly string[]): string =>
    template.replace(/chip-(\d+)-colour/g, (mark, i: string) => hexes[Number(i)] ?? mark);
  const passing = $derived(passingOffer(desk, 'palette'));
  $effect(() => () => passing.leaveAfter());
  const same = (hexes: readonly string[]): boolean => hexes.every((hex, i) => hex === now[i]);

  function use({ name, hexes }: Shown): void {
    passing.leave();
    putOnColourway(desk, name, hexesById(ids, hexes));
  }
  function keep({ name, hexes }: { name: string; hexes: readonly string[] }): void {
    if (kept.colourways.length >= MOST_COLOURWAYS)
      return desk.say(`A drawing keeps ${MOST_COLOURWAYS} colourways at most. Nothing was changed.`, 'bad');
    const names = new Set(kept.colourways.map((w) => w.name));
    const own = names.has(name) ? numberedName(name, names, 2) : name;
    desk.change('Keep a colourway', keepColourway({ id: newId(), name: own, hexes: hexesById(ids, hexes) }));
  }
  /** Two that are laid beside each other. */
  let compared: readonly string[] = $state.raw([]);
  const pair = $derived(compared.flatMap((key) => [...own, ...offered].find((s) => s.key === key) ?? []));
  const compare = (key: string): void =>
    void (compared = compared.includes(key)
      ? compared.filter((k) => k !== key)
      : [...compared.slice(-1), key]);

  const others = $derived(kept.pictures.filter((p) => p.id !== kept.traced));
  const fromPicture = (id: string): void =>
    toning(workplace, async ({ coloursOfPicture }) => {
      const picture = kept.pictures.find((p) => p.id === id);
      const found = picture && (await coloursOfPicture(workplace, picture, now.length));
      if (found) taken = { name: `As ${picture.name}`.slice(0, 60), hexes: found };
    });
  const all = $derived([{ name: 'As it is', hexes: now }, ...own]);
</script>

{#snippet card(shown: Shown)}
  <li>
    <button
      class="use"
      aria-label="Use the colourway {shown.name}"
      aria-pressed={same(shown.hexes)}
      data-tip="Put it on; point at it to see it on the bed"
      onpointerenter={() =>
        !same(shown.hexes) && passing.show(shown.name, recolourChips(hexesById(ids, shown.hexes)))}
      onpointerleave={() => passing.leave()}
      onclick={() => use(shown)}
    >
      <ColourwayPicture svg={drawn(shown.hexes)} height={74} />
      <span class="strip"
        >{#each shown.hexes as hex, i (i)}<i style:background={hex}></i>{/each}</span
      >
    </button>
    <span class="name" dir="auto" data-tip={shown.name}>{shown.name}</span>
    <span class="does">
      {#if shown.way}
        <button
          class="icon-button"
          aria-label="Remove the colourway {shown.name}"
          data-tip="Remove it"
          onclick={() => void desk.change('Remove a colourway', removeColourway(shown.key))}
        >
          <Trash size={14} strokeWidth={1.75} />
        </button>
      {:else}
        <button
          class="icon-button"
          aria-label="Keep the colourway {shown.name}"
          data-tip="Keep it"
          onclick={() => keep(shown)}
        >
          <Bookmark size={14} strokeWidth={1.75} />
        </button>
      {/if}
      <button
        class="icon-button"
        aria-label="Compare {shown.name}"
        aria-pressed={compared.includes(shown.key)}
        data-tip="Compare two"
        onclick={() => compare(shown.key)}
      >
        <Columns size={14} strokeWidth={1.75} />
      </button>
    </span>
  </li>
{/snippet}

<button class="plain-button" onclick={() => keep({ name: 'Colourway', hexes: now })}
  >Keep the colours as they are</button
>
{#if pair.length === 2}
  <div class="pair-shown" role="group" aria-label="Two colourways compared">
    {#each pair as shown (shown.key)}
      <figure>
        <ColourwayPicture svg={drawn(shown.hexes)} height={96} />
        <figcaption dir="auto">{shown.name}</figcaption>
      </figure>
    {/each}
  </div>
{:else if pair.length === 1}
  <p class="quiet">Choose a second one to compare.</p>
{/if}
{#if own.length > 0}
  <h4>Kept</h4>
  <ul aria-label="Kept colourways">
    {#each own as shown (shown.key)}{@render card(shown)}{/each}
  </ul>
  <div class="button-row">
    <button
      class="plain-button"
      onclick={() =>
        saveFile(
          `${workplace.project.name} colourways.svg`,
          new Blob([writeColourways(kept, all)], { type: 'image/svg+xml' }),
        )}
    >
      All on one sheet
    </button>
    <button class="plain-button" onclick={() => void colourwayFile(workplace, all)}>Each its own file</button>
  </div>
{/if}
<h4>Suggested</h4>
{#if others.length > 0}
  <label class="field">
    <select
      aria-label="Take colours from another picture"
      value=""
      onchange={(e) => fromPicture(e.currentTarget.value)}
    >
      <option value="" disabled>Colours of another picture</option>
      {#each others as picture (picture.id)}<option value={picture.id}>{picture.name}</option>{/each}
    </select>
  </label>
{/if}
<ul aria-label="Suggested colourways">
  {#each offered as shown (shown.key)}{@render card(shown)}{/each}
</ul>

<style>
  h4 {
    font-weight: 600;
    font-size: 13px;
  }
  ul {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 8px 6px;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: grid;
    grid-template-columns: 1fr auto;
    align-items: center;
    min-width: 0;
  }
  .use {
    grid-column: 1 / -1;
    display: block;
    min-width: 0;
    overflow: hidden;
    border: 1px solid var(--line);
    border-radius: 6px;
  }
  .use[aria-pressed='true'] {
    outline: 2px solid var(--carrot);
    outline-offset: 1px;
  }
  .strip {
    display: flex;
    height: 14px;
    border-top: 1px solid var(--line);
  }
  .strip i {
    flex: 1;
  }
  .name {
    overflow: hidden;
    font-size: 12px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .does {
    display: flex;
  }
  .does .icon-button {
    width: 24px;
    height: 24px;
  }
  .does [aria-pressed='true'] {
    background: var(--carrot-wash);
    color: var(--carrot-text, var(--carrot));
  }
  .pair-shown {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 4px;
  }
  figure {
    min-width: 0;
    margin: 0;
  }
  figcaption {
    overflow: hidden;
    font-size: 12px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
</style>
