<script lang="ts">
  import { shapesOf } from '@mirrot/core';
  import type { ShapeEconomy } from '$lib/desk/drifts.svelte';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';

  // What the anchors of what is drawn cost, beside the fewest that hold the same edges.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  /** As it was before a press while that lasts, so that the hand has the frame to itself. */
  let costs: readonly ShapeEconomy[] = $state.raw([]);
  $effect(() => {
    if (desk.pointing.pressing) return;
    costs = desk.picture.driftSettings
      ? shapesOf(desk.art).flatMap((p) => (p.shown ? (desk.picture.drifts.economyOf(p.shape.id) ?? []) : []))
      : [];
  });
  const chosen = $derived(costs.filter((c) => desk.choice.shapes.includes(c.shape.id)));
  const told = $derived(chosen.length > 0 ? chosen : costs);
  const sum = (k: 'anchors' | 'fewest'): number => told.reduce((n, c) => n + c[k], 0);
  const spare = $derived(told.reduce((n, c) => n + c.spare.length, 0));
</script>

{#if costs.length > 0}
  <Fold
    title="Economy"
    figure="{sum('anchors')}; {sum('fewest')} would hold the edge within {desk.habits.driftWithin} px"
  >
    <p class="quiet">
      {chosen.length > 0 ? 'The edge under what is chosen' : 'The edges under all of it'} can be held within
      {desk.habits.driftWithin.toFixed(1)} px by {sum('fewest')} anchors.
      {sum('fewest') > sum('anchors') ? 'What is drawn leaves them somewhere.' : ''}
      {spare === 0
        ? 'None of those drawn is spare.'
        : `${spare} of those drawn ${spare === 1 ? 'is' : 'are'} spare: Thin out takes them.`}
    </p>
    {#await import('../AnchorsChart.svelte') then { default: AnchorsChart }}<AnchorsChart
        {desk}
        {costs}
      />{/await}
    <Toggle
      label="Mark spare anchors"
      on={desk.habits.spareMarks}
      change={(spareMarks) => desk.habits.set({ spareMarks })}
    />
  </Fold>
{/if}
