<script lang="ts">
  import { fromPx, toPx, type Tolerances, type Unit } from '@mirrot/core';
  import type { Proving } from '$lib/desk/proving.svelte';
  import { ownTolerances, setTolerances, tolerancesOf } from '../tolerances';
  import Fold from '$lib/ui/Fold.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';

  // How much is too much, for what the drawing is proved for.
  let { proving, unit }: { proving: Proving; unit: Unit } = $props();
  const tolerances = $derived(tolerancesOf(proving));
  const changed = $derived(Object.keys(ownTolerances(proving)[proving.use] ?? {}).length);

  interface Field {
    readonly of: keyof Tolerances;
    readonly label: string;
    /** Lengths are told in the sheet's unit. */
    readonly unit: 'length' | '°' | 'ΔE' | 'px' | '%' | '/ cm';
    readonly most: number;
    readonly step: number;
  }
  const FIELDS: readonly Field[] = [
    { of: 'gap', label: 'gaps up to', unit: 'length', most: 100, step: 0.1 },
    { of: 'tiny', label: 'crumbs up to', unit: 'length', most: 100, step: 0.1 },
    { of: 'spare', label: 'spare within', unit: 'length', most: 20, step: 0.01 },
    { of: 'kink', label: 'kinks up to', unit: '°', most: 45, step: 0.5 },
    { of: 'level', label: 'level within', unit: '°', most: 20, step: 0.1 },
    { of: 'colour', label: 'colours alike within', unit: 'ΔE', most: 20, step: 0.1 },
    { of: 'weight', label: 'weights alike within', unit: '%', most: 100, step: 1 },
    { of: 'drift', label: 'drift beyond', unit: 'px', most: 50, step: 0.1 },
    { of: 'anchorsPerCm', label: 'anchors beyond', unit: '/ cm', most: 1000, step: 1 },
  ];
  const shownValue = ({ of, unit: kind }: Field): number => {
    const value = tolerances[of];
    return kind === 'length' ? fromPx(value, unit) : kind === '%' ? 100 * value : value;
  };
  const setValue = ({ of, unit: kind }: Field, value: number): void =>
    setTolerances(proving, {
      [of]: kind === 'length' ? toPx(value, unit) : kind === '%' ? value / 100 : value,
    });
</script>

<Fold title="Tolerances" figure={changed > 0 ? `${changed} changed` : `for ${proving.use}`}>
  {#each FIELDS as field (field.of)}
    <!-- What a machine is not asked for has none. -->
    {#if Number.isFinite(tolerances[field.of])}
      <NumberField
        label={field.label}
        value={shownValue(field)}
        unit={field.unit === 'length' ? unit : field.unit}
        digits={3}
        min={0}
        max={field.unit === 'length' ? fromPx(field.most, unit) : field.most}
        step={field.step}
        change={(value) => setValue(field, value)}
      />
    {/if}
  {/each}
  {#if changed > 0}
    <button class="plain-button" onclick={() => setTolerances(proving, null)}
      >Back to those for {proving.use}</button
    >
  {/if}
</Fold>
