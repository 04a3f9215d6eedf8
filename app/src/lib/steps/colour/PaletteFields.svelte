<script lang="ts">
  import {
    chipUses,
    CHIP_ROLES,
    MirrotError,
    MOST_CHIPS,
    NEAR_CHIPS,
    nearPairs,
    oklabToOklch,
    rangeOf,
    readColour,
    removeChip,
    replaceChips,
    rgbToOklab,
    parseHex,
    setChip,
    together,
    type Chip,
  } from '@mirrot/core';
  import X from '@lucide/svelte/icons/x';
  import { applyColour } from '$lib/edits/painting';
  import { addColours, keepAllAsChips, mergeNear } from '$lib/edits/palette';
  import { receiverInWords } from '$lib/desk/receivers';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Range from '$lib/ui/Range.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import { chooseByFill } from '$lib/edits/choosing-kin';
  import { toning } from './commands';

  // The palette: chips with the count of use beneath each, what is done with the one that is chosen, and with all.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const chips = $derived(desk.art.chips);
  const uses = $derived(chipUses(desk.art));
  const nameOf = (chip: Chip): string => chip.name || chip.hex.toUpperCase();
  const chosen = $derived(chips.find((c) => c.id === desk.colouring.chip) ?? null);
  const unused = $derived(chips.filter((c) => !uses.has(c.id)));
  /** Pairs are looked for among so many chips at most: a palette from elsewhere may have a thousand. */
  const MOST_COMPARED = 300;
  const near = $derived(chips.length <= MOST_COMPARED ? nearPairs(chips.map((c) => c.hex)) : []);

  function press(chip: Chip): void {
    desk.colouring.chip = chip.id;
    applyColour(desk, { chip: chip.id });
  }
  let wrong: string | null = $state(null);
  function recolour(text: string): void {
    if (!chosen) return;
    try {
      desk.change('Recolour a chip', setChip(chosen.id, { hex: readColour(text) }));
      wrong = null;
    } catch (error) {
      wrong = `${error instanceof MirrotError ? error.message : String(error)} Nothing was changed.`;
    }
  }

  let count = $state(6);
  let steps = $state(5);
  const range = $derived(chosen ? rangeOf(chosen.hex, steps) : []);
  const several = $derived(desk.choosing.receivedShapes.length > 1);
  const light = (hex: string): boolean => oklabToOklch(rgbToOklab(parseHex(hex)))[0] > 0.62;
  let opened = $state(false);
</script>

<section aria-label="Palette">
  <h3 class="panel-title">Palette <span>{chips.length === 1 ? '1 chip' : `${chips.length} chips`}</span></h3>
  {#if chips.length === 0}
    <p class="quiet">No chips yet. Sample a colour, then “Keep as a chip”, or pick some from the picture.</p>
  {/if}
  <ul class="chips">
    {#each chips as chip (chip.id)}
      <li>
        <button
          aria-label="{nameOf(chip)}, {uses.get(chip.id) ?? 0} in use: give it to {receiverInWords(desk)}"
          aria-pressed={chip.id === chosen?.id}
          data-tip="{nameOf(chip)}{chip.role ? `, ${chip.role}` : ''}: to {receiverInWords(desk)}"
          style:background={chip.hex}
          style:color={light(chip.hex) ? '#2a2722' : '#fffdf6'}
          onclick={() => press(chip)}>{chip.role?.[0] ?? ''}</button
        >
        <span class="quiet" aria-hidden="true">{uses.get(chip.id) ?? 0}</span>
      </li>
    {/each}
  </ul>
  {#if chosen}
    {@const chip = chosen}
    <div class="one-chip" role="group" aria-label="The chip {nameOf(chip)}">
      <label class="field">
        <span class="quiet">name</span>
        <input
          type="text"
          dir="auto"
          maxlength="60"
          value={chip.name}
          placeholder={chip.hex.toUpperCase()}
          onchange={(e) =>
            void desk.change('Name a chip', setChip(chip.id, { name: e.currentTarget.value.trim() }))}
        />
      </label>
      <label class="field">
        <input
          type="color"
          value={chip.hex}
          aria-label="Colour of the chip"
          onchange={(e) => recolour(e.currentTarget.value)}
        />
        <input
          type="text"
          spellcheck="false"
          value={chip.hex.toUpperCase()}
          aria-label="Colour of the chip, written"
          onchange={(e) => recolour(e.currentTarget.value)}
          onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
      </label>
      {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
      <div class="pair">
        <label class="field">
          <select
            aria-label="What the chip is for"
            value={chip.role ?? ''}
            onchange={(e) =>
              void desk.change(
                'Say what a chip is for',
                setChip(chip.id, { role: (e.currentTarget.value || null) as Chip['role'] | null }),
              )}
          >
            <option value="">no role</option>
            {#each CHIP_ROLES as role (role)}<option value={role}>{role}</option>{/each}
          </select>
        </label>
        <label class="field">
          <select
            aria-label="Replace the chip by"
            value=""
            onchange={(e) => {
              desk.change('Replace a chip', replaceChips([chip.id], e.currentTarget.value));
              desk.colouring.chip = e.currentTarget.value;
            }}
          >
            <option value="" disabled>replace by</option>
            {#each chips.filter((c) => c.id !== chip.id) as other (other.id)}
              <option value={other.id}>{nameOf(other)}</option>
            {/each}
          </select>
        </label>
      </div>
      <Range
        label="Range, light to dark"
        value={steps}
        min={2}
        max={12}
        text="{steps} steps"
        change={(v) => (steps = v)}
      />
      <div class="strip" aria-hidden="true">
        {#each range as hex (hex)}<i style:background={hex}></i>{/each}
      </div>
      <div class="button-row">
        <button
          class="plain-button"
          onclick={() =>
            addColours(
              desk,
              'Add a range',
              range.map((hex, i) => ({ hex, name: `${nameOf(chip)} ${i + 1}` })),
            )}
        >
          Add the range
        </button>
        {#if several}
          <button
            class="plain-button"
            onclick={() => toning(workplace, ({ dealRange }) => dealRange(workplace, nameOf(chip), range))}
          >
            Deal the range
          </button>
        {/if}
        <button class="plain-button" onclick={() => chooseByFill(desk, chip.hex)}>Choose its shapes</button>
        <button
          class="icon-button"
          aria-label="Remove the chip {nameOf(chip)}"
          data-tip="Remove the chip; its colour stays where it is used"
          onclick={() => {
            desk.change('Remove a chip', removeChip(chip.id));
            desk.colouring.chip = null;
          }}
        >
          <X size={14} strokeWidth={1.75} />
        </button>
      </div>
      {#if several}
        <Toggle
          label="Neighbours never the same"
          on={desk.habits.dealApart}
          change={(on) => desk.habits.set({ dealApart: on })}
        />
      {/if}
    </div>
  {/if}
  <Toggle
    label="Keep to the palette"
    on={desk.habits.keepToPalette}
    change={(on) => desk.habits.set({ keepToPalette: on })}
  />
  <Range
    label="Fills count as one within"
    value={desk.habits.fillWithin}
    max={30}
    text="ΔE {desk.habits.fillWithin}"
    change={(v) => desk.habits.set({ fillWithin: v })}
  />
</section>
{#if desk.colouring.found}
  {@const found = desk.colouring.found}
  <section aria-label="Colours of the picture">
    <p class="quiet">{found.length} colours of the picture, as much as each takes of it:</p>
    <div class="strip">
      {#each found as { hex, share } (hex)}<i
          style:background={hex}
          style:flex-grow={Math.max(share, 0.03)}
          data-tip="{hex.toUpperCase()}, {Math.round(100 * share)} %"
        ></i>{/each}
    </div>
    <div class="button-row">
      <button
        class="plain-button"
        onclick={() => {
          addColours(
            desk,
            'Take colours of the picture',
            found.map(({ hex }) => ({ hex, name: '' })),
          );
          desk.colouring.found = null;
        }}>Take them as chips</button
      >
      <button class="plain-button" onclick={() => (desk.colouring.found = null)}>Leave them</button>
    </div>
  </section>
{/if}
<Fold
  title="Work on the palette"
  figure={unused.length + near.length > 0 ? `${unused.length + near.length} to look at` : ''}
  turned={(open) => (opened = open)}
>
  {#if desk.picture.traced}
    <NumberField
      label="colours"
      name="How many colours of the picture"
      value={count}
      digits={0}
      min={1}
      max={32}
      change={(v) => (count = v)}
    />
    <button
      class="plain-button"
      onclick={() => toning(workplace, ({ pickPalette }) => pickPalette(workplace, Math.round(count)))}
    >
      Pick from the picture
    </button>
  {/if}
  {#if near.length > 0}
    <p class="quiet">
      {near.length === 1 ? 'Two chips are' : `${near.length} pairs of chips are`} nearer than ΔE {NEAR_CHIPS}:
      {nameOf(chips[near[0]!.one]!)} and {nameOf(chips[near[0]!.other]!)}, ΔE {near[0]!.deltaE.toFixed(1)}.
    </p>
    <button class="plain-button" onclick={() => mergeNear(desk)}>Merge near chips</button>
  {/if}
  {#if unused.length > 0}
    <button
      class="plain-button"
      onclick={() =>
        void desk.change('Remove unused chips', together(...unused.map((c) => removeChip(c.id))))}
    >
      Remove {unused.length} unused
    </button>
  {/if}
  <div class="button-row">
    <button class="plain-button" onclick={() => keepAllAsChips(desk)}>Chips for all colours</button>
  </div>
  {#if opened}
    {#await import('./PaletteText.svelte') then { default: PaletteText }}
      <PaletteText {workplace} />
    {:catch}<!-- it needs the server once -->{/await}
    {#await import('../AreaChart.svelte') then { default: AreaChart }}
      <AreaChart {desk} />
    {:catch}<!-- the chart needs the server once -->{/await}
  {/if}
  {#if chips.length >= MOST_CHIPS}<p class="quiet">A palette has {MOST_CHIPS} chips at most.</p>{/if}
</Fold>

<style>
  section {
    display: flex;
    flex-direction: column;
    gap: 6px;
  }
  .panel-title {
    margin-bottom: 0;
  }
  .chips {
    display: grid;
    grid-template-columns: repeat(auto-fill, 30px);
    gap: 4px 5px;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  .chips li {
    display: grid;
    justify-items: center;
    font-size: 11.5px;
    line-height: 14px;
  }
  .chips button {
    width: 28px;
    height: 28px;
    border: 1px solid var(--line);
    border-radius: 6px;
    font-size: 12px;
    font-weight: 600;
  }
  .chips button[aria-pressed='true'] {
    outline: 2px solid var(--carrot);
    outline-offset: 1px;
  }
  .one-chip {
    display: flex;
    flex-direction: column;
    gap: 6px;
    padding: 6px 0 6px 8px;
    border-left: 3px solid var(--carrot);
  }
  .strip {
    display: flex;
    height: 22px;
    overflow: hidden;
    border: 1px solid var(--line);
    border-radius: 6px;
  }
  .strip i {
    flex: 1;
  }
  .wrong {
    font-size: 12.5px;
    color: var(--brick);
  }
  input[type='color'] {
    flex: none;
    width: 24px;
    height: 22px;
    padding: 0;
    border: 0;
    background: none;
  }
  p {
    font-size: 12.5px;
  }
</style>
