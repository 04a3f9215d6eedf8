<script lang="ts">
  import { formatLength, fromPx, MOST_BLUR, toPx, UNIT_DIGITS, WIDEST_EDGE } from '@mirrot/core';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import {
    cutoutsChosen,
    edgeOf,
    leaveShadow,
    setEdges,
    setShadowReach,
    writeCutout,
  } from '$lib/edits/cutting-out';
  import Fold from '$lib/ui/Fold.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';

  // How the chosen cutout ends at its outline: where, how softly, with or without the shadow beside it.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const groups = $derived(cutoutsChosen(desk));
  const first = $derived(groups[0] ?? null);
  const edge = $derived(first && edgeOf(first));
  const unit = $derived(desk.art.sheet.unit);
  const digits = $derived(UNIT_DIGITS[unit]);
  const kept = $derived(workplace.saving.state === 'kept');

  const EIGHTH = Math.PI / 4;
  const SIDES = ['to the right', 'below, right', 'below', 'below, left', 'to the left', 'above, left', 'above', 'above, right']; // prettier-ignore
  /** The eighth of a turn that an angle lies nearest to. */
  const sideAt = (angle: number): number => ((Math.round(angle / EIGHTH) % 8) + 8) % 8;
</script>

{#if first && edge}
  <Fold title="Cutout" figure={edge.by === 0 ? '' : formatLength(edge.by, unit)}>
    <NumberField
      label="edge moved"
      name="Edge moved outward by; below 0 inward"
      value={fromPx(edge.by, unit)}
      {unit}
      {digits}
      min={fromPx(-WIDEST_EDGE, unit)}
      max={fromPx(WIDEST_EDGE, unit)}
      change={(v) => setEdges(desk, groups, { by: toPx(v, unit) })}
    />
    <NumberField
      label="softness"
      name="Softness of the edge"
      value={fromPx(edge.soft, unit)}
      {unit}
      {digits}
      min={0}
      max={fromPx(MOST_BLUR, unit)}
      change={(v) => setEdges(desk, groups, { soft: toPx(v, unit) })}
    />
    <label class="field">
      <span class="quiet">soft shadow</span>
      <select
        aria-label="Leave the soft shadow"
        value={edge.shadow ? String(sideAt(edge.shadow.side)) : ''}
        onchange={(e) => {
          const { value } = e.currentTarget;
          void leaveShadow(desk, first, value === '' ? null : Number(value) * EIGHTH);
        }}
      >
        <option value="">goes</option>
        {#each SIDES as side, i (side)}<option value={String(i)}>stays {side}</option>{/each}
      </select>
    </label>
    {#if edge.shadow}
      <NumberField
        label="reaches"
        name="How far the shadow reaches"
        value={fromPx(edge.shadow.reach, unit)}
        {unit}
        {digits}
        min={fromPx(1, unit)}
        max={fromPx(WIDEST_EDGE, unit)}
        change={(v) => setShadowReach(desk, groups, toPx(v, unit))}
      />
    {/if}
    <button class="plain-button" disabled={!kept} onclick={() => void writeCutout(workplace, first)}
      >Write it as PNG</button
    >
    <p class="quiet">At the picture’s own size, on clear ground, no rim of the old background.</p>
  </Fold>
{/if}

<style>
  p {
    margin: 2px 0 0;
  }
</style>
