<script lang="ts">
  import type { Machine } from '@mirrot/core';
  import type { ComponentProps } from 'svelte';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import { metres } from './bench/words';

  // The machine that the file is for, and what the file comes to on it.
  let { workplace }: { workplace: Workplace } = $props();
  const out = $derived(workplace.exporting);
  const machine = $derived(out.machine);
  const set = (change: Partial<Machine>): void => void (out.machine = { ...machine, ...change });

  interface MachineField extends Omit<ComponentProps<typeof NumberField>, 'value' | 'change'> {
    readonly key: Exclude<keyof Machine, 'tool'>;
  }
  const FIELDS: readonly MachineField[] = [
    { key: 'lineWidth', label: 'line', name: 'Width of the line it leaves', unit: 'mm', digits: 2, step: 0.05, min: 0.01, max: 20 }, // prettier-ignore
    {
      key: 'speed',
      label: 'speed',
      name: 'Speed with the pen down',
      unit: 'mm/s',
      digits: 1,
      min: 1,
      max: 2000,
    },
    { key: 'travelSpeed', label: 'travel', name: 'Speed of travel, with the pen up', unit: 'mm/s', digits: 1, min: 1, max: 5000 }, // prettier-ignore
    { key: 'acceleration', label: 'gains', name: 'Speed it gains each second', unit: 'mm/s²', digits: 0, step: 100, min: 10, max: 100_000 }, // prettier-ignore
    {
      key: 'liftTime',
      label: 'lift',
      name: 'Time of a lift',
      unit: 's',
      digits: 2,
      step: 0.05,
      min: 0,
      max: 10,
    },
    { key: 'placesPerSecond', label: 'takes', name: 'Places it takes a second', unit: 'places/s', digits: 0, step: 50, min: 1, max: 100_000 }, // prettier-ignore
    { key: 'bladeOffset', label: 'blade', name: 'How far the blade trails', unit: 'mm', digits: 3, step: 0.05, min: 0, max: 5 }, // prettier-ignore
  ];

  const plot = $derived(workplace.lineMaking.made?.plot ?? null);
  const saved = $derived(plot ? plot.kept.travel - plot.way.travel : 0);
  /** A saving of less is none worth telling, millimetres. */
  const LEAST_TOLD_MM = 0.5;
  const told = $derived.by(() => {
    if (!plot) return '';
    const { drawn, travel, lifts } = plot.way;
    const comes = `${metres(drawn)} ${machine.tool === 'pen' ? 'drawn' : 'cut'}, ${metres(travel)} travelled, ${lifts} ${lifts === 1 ? 'lift' : 'lifts'}`;
    return saved > LEAST_TOLD_MM ? `${comes}; ${metres(saved)} saved` : comes;
  });
</script>

<Segments
  label="What the machine holds"
  value={machine.tool}
  options={[
    ['pen', 'pen'],
    ['knife', 'knife'],
  ] as const}
  change={(tool) => set({ tool })}
/>
<Toggle label="Short way between strokes" on={out.shortWay} change={(on) => (out.shortWay = on)} />
{#if machine.tool === 'knife'}
  <p class="quiet">What lies inside is cut first.</p>
  <Toggle label="Lead the blade ahead" on={out.leadBlade} change={(on) => (out.leadBlade = on)} />
{/if}
<p class="quiet" aria-live="polite">{told}</p>
<Fold title="The machine" figure="{machine.speed} mm/s">
  {#each FIELDS as { key, ...field } (key)}
    {#if key !== 'bladeOffset' || machine.tool === 'knife'}
      <NumberField {...field} value={machine[key]} change={(value) => set({ [key]: value })} />
    {/if}
  {/each}
</Fold>

<style>
  p {
    margin: 0;
  }
</style>
