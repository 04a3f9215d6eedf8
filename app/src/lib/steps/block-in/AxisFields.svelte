<script lang="ts">
  import {
    FEWEST_PARTS,
    MOST_PARTS,
    setAxis,
    setDrawingAxis,
    together,
    type Axis,
    toDegrees,
    toRadians,
  } from '@mirrot/core';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import LengthField from '$lib/ui/LengthField.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import { command } from '../commands';

  // The axis about which is drawn: placing it, its numbers, letting it go.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const unit = $derived(desk.art.sheet.unit);
  const chosen = $derived(desk.choosing.receivedShapes.find((s) => s.axis));
  const axis = $derived(chosen?.axis ?? desk.art.axis);

  function set(values: Partial<Axis>): void {
    if (!axis) return;
    const next = { ...axis, ...values } as Axis;
    const ended = desk.choosing.justEnded;
    desk.change(
      'Change the axis',
      together(
        setAxis(chosen ? [chosen.id] : [], next),
        !chosen || JSON.stringify(chosen.axis) === JSON.stringify(desk.art.axis)
          ? setDrawingAxis(next)
          : () => {},
      ),
      { choice: desk.choice },
    );
    desk.choosing.justEnded = ended;
  }
  const placing = (id: string): boolean => command(id).on?.(workplace) ?? false;
</script>

<div class="row">
  {#each ['mirror-axis', 'turn-axis'] as const as id (id)}
    <button class="plain-button" aria-pressed={placing(id)} onclick={() => command(id).run(workplace)}
      >{command(id).title}</button
    >
  {/each}
</div>
{#if axis}
  <div class="pair">
    {#each ['x', 'y'] as const as way (way)}
      <LengthField {unit} label={way} name="Axis {way}" value={axis[way]} change={(v) => set({ [way]: v })} />
    {/each}
    {#if axis.kind === 'mirror'}
      <NumberField
        label="angle"
        name="Angle of the axis"
        value={toDegrees(axis.angle)}
        unit="°"
        digits={2}
        min={-360}
        max={360}
        change={(v) => set({ angle: toRadians(v) })}
      />
    {:else}
      <NumberField
        label="parts"
        name="Parts"
        value={axis.parts}
        digits={0}
        min={FEWEST_PARTS}
        max={MOST_PARTS}
        change={(v) => set({ parts: Math.round(v) })}
      />
    {/if}
  </div>
  <p class="quiet">
    {axis.kind === 'mirror'
      ? 'New paths appear on both sides. Half an outline that begins and ends on the axis becomes a whole one.'
      : `New paths appear in all ${axis.parts} parts, an open one as one outline round the centre.`}
  </p>
  <button class="plain-button" onclick={() => command('release-axis').run(workplace)}>Release the axis</button
  >
{:else if placing('turn-axis')}
  <NumberField
    label="parts"
    name="Parts"
    value={desk.next.axisParts}
    digits={0}
    min={FEWEST_PARTS}
    max={MOST_PARTS}
    change={(v) => (desk.next.axisParts = Math.round(v))}
  />
{/if}

<style>
  .row {
    display: flex;
    gap: 6px;
  }
  .row [aria-pressed='true'] {
    border-color: var(--carrot);
  }
</style>
