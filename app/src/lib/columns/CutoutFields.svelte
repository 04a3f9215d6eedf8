<script lang="ts">
  import { formatLength, fromPx, MOST_BLUR, WIDEST_EDGE } from '@mirrot/core';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { writeFile } from '$lib/desk/writing';
  import { cutoutsChosen, edgeOf, leaveShadow, setEdges, setShadowReach } from '$lib/edits/cutting-out';
  import Fold from '$lib/ui/Fold.svelte';
  import LengthField from '$lib/ui/LengthField.svelte';

  // How the chosen cutout ends at its outline: where, how softly, with or without the shadow beside it.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const groups = $derived(cutoutsChosen(desk));
  const first = $derived(groups[0] ?? null);
  const edge = $derived(first && edgeOf(first));
  const unit = $derived(desk.art.sheet.unit);
  const kept = $derived(workplace.saving.state === 'kept');

  const EIGHTH = Math.PI / 4;
  const SIDES = ['to the right', 'below, right', 'below', 'below, left', 'to the left', 'above, left', 'above', 'above, right']; // prettier-ignore
  /** The eighth of a turn that an angle lies nearest to. */
  const sideAt = (angle: number): number => ((Math.round(angle / EIGHTH) % 8) + 8) % 8;
</script>

{#if first && edge}
  <Fold title="Cutout" figure={edge.by === 0 ? '' : formatLength(edge.by, unit)}>
    <LengthField
      {unit}
      label="edge moved"
      name="Edge moved outward by; below 0 inward"
      value={edge.by}
      least={fromPx(-WIDEST_EDGE, unit)}
      most={fromPx(WIDEST_EDGE, unit)}
      change={(v) => setEdges(desk, groups, { by: v })}
    />
    <LengthField
      {unit}
      label="softness"
      name="Softness of the edge"
      value={edge.soft}
      least={0}
      most={fromPx(MOST_BLUR, unit)}
      change={(v) => setEdges(desk, groups, { soft: v })}
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
      <LengthField
        {unit}
        label="reaches"
        name="How far the shadow reaches"
        value={edge.shadow.reach}
        least={fromPx(1, unit)}
        most={fromPx(WIDEST_EDGE, unit)}
        change={(v) => setShadowReach(desk, groups, v)}
      />
    {/if}
    <button
      class="plain-button"
      disabled={!kept}
      onclick={() => void writeFile(workplace, 'the cutout', 'png', { cutout: first.id })}
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
