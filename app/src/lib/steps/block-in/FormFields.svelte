<script lang="ts">
  import {
    FEWEST_SIDES,
    redrawForm,
    MOST_SIDES,
    setPath,
    type Form,
    toDegrees,
    toRadians,
  } from '@mirrot/core';
  import { FORM_WORDS, formInHand } from '$lib/bed/forms';
  import type { Desk } from '$lib/desk/desk.svelte';
  import LengthField from '$lib/ui/LengthField.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';

  // The numbers of a form, as long as it is one.
  let { desk }: { desk: Desk } = $props();
  const held = $derived(formInHand(desk));
  const unit = $derived(desk.art.sheet.unit);

  function set(label: string, values: Partial<Form>): void {
    if (!held) return;
    const ended = desk.choosing.justEnded;
    desk.change(label, setPath(held.shape.id, redrawForm(held.path, { ...held.form, ...values })), {
      choice: desk.choice,
    });
    desk.choosing.justEnded = ended;
  }
  const MOST = 1e5;
</script>

{#if held}
  {@const form = held.form}
  <section aria-label="Numbers of the {FORM_WORDS[form.kind].toLowerCase()}">
    <h3 class="panel-title">
      <b dir="auto">{held.shape.name}</b> <span>{FORM_WORDS[form.kind].toLowerCase()}</span>
    </h3>
    <div class="pair">
      {#each ['x', 'y'] as const as axis (axis)}
        <LengthField
          {unit}
          label={axis}
          name="Middle {axis}"
          value={form[axis]}
          least={-MOST}
          change={(v) => set('Place the form', { [axis]: v })}
        />
      {/each}
      <LengthField
        {unit}
        label={form.kind === 'line' ? 'l' : 'w'}
        name={form.kind === 'line' ? 'Length' : form.kind === 'polygon' ? 'Width across corners' : 'Width'}
        value={form.width}
        least={0.001}
        change={(v) =>
          set('Size the form', {
            width: v,
            ...(form.kind === 'polygon' && { height: v }),
          })}
      />
      {#if form.kind === 'box' || form.kind === 'ellipse'}
        <LengthField
          {unit}
          label="h"
          name="Height"
          value={form.height}
          least={0.001}
          change={(v) => set('Size the form', { height: v })}
        />
      {/if}
      <NumberField
        label="turn"
        name="Turn"
        value={toDegrees(form.angle)}
        unit="°"
        digits={1}
        min={-360}
        max={360}
        change={(v) => set('Turn the form', { angle: toRadians(v) })}
      />
      {#if form.kind === 'box'}
        <LengthField
          {unit}
          label="round"
          name="Radius of the corners"
          value={form.radii[0]}
          least={0}
          change={(v) =>
            set('Round the corners', {
              radii: [0, 1, 2, 3].map(() => v) as unknown as Form['radii'],
            })}
        />
      {:else if form.kind === 'polygon'}
        <NumberField
          label="sides"
          value={form.sides}
          digits={0}
          min={FEWEST_SIDES}
          max={MOST_SIDES}
          change={(v) => set('Count of sides', { sides: Math.round(v) })}
        />
      {/if}
    </div>
  </section>
{/if}

<style>
  b {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
</style>
