<script lang="ts">
  import Trash from '@lucide/svelte/icons/trash-2';
  import {
    addGuide,
    fromPx,
    lockGuides,
    removeGuides,
    setGrid,
    setGuide,
    type Guide,
    toDegrees,
    toRadians,
  } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { newId } from '$lib/ids';
  import LengthField from '$lib/ui/LengthField.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';

  // Guides and grid by numbers. Guides are pulled out of the rulers too.
  let { desk }: { desk: Desk } = $props();
  const unit = $derived(desk.art.sheet.unit);
  const guides = $derived(desk.art.guides);
  const grid = $derived(desk.art.grid);
  const degrees = (g: Guide): number => toDegrees(g.angle);
  const level = (g: Guide): boolean => Math.abs(Math.sin(g.angle)) < 1e-9;
  const upright = (g: Guide): boolean => Math.abs(Math.cos(g.angle)) < 1e-9;
  const add = (angle: number): void => {
    const { width, height } = desk.art.sheet;
    desk.change('Add a guide', addGuide({ id: newId(), x: width / 2, y: height / 2, angle }));
  };
  const place = (g: Guide, values: Partial<Guide>): void =>
    void desk.change('Place the guide', setGuide(g.id, values));
</script>

<div class="row">
  <button class="plain-button" onclick={() => add(0)}>Level guide</button>
  <button class="plain-button" onclick={() => add(Math.PI / 2)}>Upright guide</button>
</div>
{#each guides.lines as g, i (g.id)}
  <div class="guide" role="group" aria-label="Guide {i + 1}">
    {#if !upright(g)}
      <LengthField {unit} label="y" name="Guide {i + 1} y" value={g.y} change={(v) => place(g, { y: v })} />
    {/if}
    {#if !level(g)}
      <LengthField {unit} label="x" name="Guide {i + 1} x" value={g.x} change={(v) => place(g, { x: v })} />
    {/if}
    <NumberField
      label="°"
      name="Guide {i + 1} angle"
      value={degrees(g)}
      digits={2}
      min={-360}
      max={360}
      change={(v) => place(g, { angle: toRadians(v) })}
    />
    <button
      class="icon-button"
      aria-label="Take guide {i + 1} away"
      data-tip="Take guide {i + 1} away"
      onclick={() => desk.change('Take the guide away', removeGuides(g.id))}
      ><Trash size={16} strokeWidth={1.75} /></button
    >
  </div>
{:else}
  <p class="quiet">No guides. Pull one out of a ruler, or add one here. Press one twice to turn it.</p>
{/each}
{#if guides.lines.length > 0}
  <Toggle
    label="Guides locked"
    on={guides.locked}
    change={(on) => desk.change(on ? 'Lock the guides' : 'Unlock the guides', lockGuides(on))}
  />
{/if}
<Toggle
  label="Grid shown"
  on={grid.shown}
  change={(shown) => desk.change(shown ? 'Show the grid' : 'Hide the grid', setGrid({ shown }))}
/>
{#if grid.shown}
  <div class="guide">
    <LengthField
      {unit}
      label="step"
      name="Step of the grid"
      value={grid.step}
      least={fromPx(0.5, unit)}
      most={fromPx(10_000, unit)}
      change={(v) => desk.change('Step of the grid', setGrid({ step: v }))}
    />
    <input
      type="color"
      aria-label="Colour of the grid"
      data-tip="Colour of the grid"
      value={grid.hex}
      onchange={(e) => desk.change('Colour of the grid', setGrid({ hex: e.currentTarget.value }))}
    />
  </div>
{/if}

<style>
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  .guide {
    display: flex;
    align-items: center;
    gap: 4px;
  }
  .guide :global(.field) {
    flex: 1;
    padding: 0 6px;
  }
  input[type='color'] {
    width: 34px;
    height: 28px;
    padding: 2px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: none;
  }
</style>
