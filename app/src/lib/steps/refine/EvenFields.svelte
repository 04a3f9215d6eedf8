<script lang="ts">
  import { FEWEST_PARTS, MOST_PARTS } from '@mirrot/core';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import { command } from '../commands';

  // What nearly symmetric shapes are made exactly symmetric about.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
</script>

<Fold title="Symmetric again">
  <Segments
    label="Symmetric about"
    value={desk.habits.evenAbout}
    options={[
      ['middle', 'middle'],
      ['centre', 'centre'],
      ['axis', 'axis'],
    ] as const}
    change={(about) => desk.habits.set({ evenAbout: about })}
  />
  {#if desk.habits.evenAbout === 'centre'}
    <NumberField
      label="parts"
      name="Parts about the centre"
      value={desk.next.axisParts}
      unit=""
      digits={0}
      min={FEWEST_PARTS}
      max={MOST_PARTS}
      change={(parts) => (desk.next.axisParts = Math.round(parts))}
    />
  {/if}
  <button class="plain-button" onclick={() => command('symmetric-again').run(workplace)}
    >Show it symmetric</button
  >
</Fold>
