<script lang="ts">
  import { FARTHEST_COORDINATE, fromPx, toPx, UNIT_DIGITS, type Unit } from '@mirrot/core';
  import NumberField from './NumberField.svelte';

  // A length or coordinate of the document, seen and typed in the sheet's unit.
  interface Props {
    unit: Unit;
    label: string;
    name?: string;
    /** Sheet pixels. */
    value: number;
    /** In the unit. A length has a least; a coordinate goes as far as the document does. */
    least?: number;
    most?: number;
    change: (value: number) => void;
  }
  let { unit, label, name, value, least, most, change }: Props = $props();

  const farthest = $derived(Math.floor(fromPx(FARTHEST_COORDINATE / 2, unit)));
</script>

<NumberField
  {label}
  {name}
  value={fromPx(value, unit)}
  {unit}
  digits={UNIT_DIGITS[unit] + 1}
  min={least ?? -farthest}
  max={most ?? farthest}
  change={(v) => change(toPx(v, unit))}
/>
