<script lang="ts">
  interface Props {
    /** Stands before the number; short. */
    label: string;
    /** What it is called in full; the label when left out. */
    name?: string;
    value: number;
    unit?: string;
    digits?: number;
    min?: number;
    max?: number;
    change: (value: number) => void;
  }
  let {
    label,
    name = label,
    value,
    unit,
    digits = 2,
    min = -Infinity,
    max = Infinity,
    change,
  }: Props = $props();

  const written = $derived(String(Number(value.toFixed(digits))));
  let wrong = $state(false);

  function take(input: HTMLInputElement): void {
    const typed = Number(input.value.trim().replace(',', '.'));
    wrong = input.value.trim() === '' || !Number.isFinite(typed) || typed < min || typed > max;
    if (wrong) return;
    if (typed !== Number(written)) change(typed);
    input.value = written;
  }
</script>

<label class="field" class:wrong>
  <span class="quiet">{label}</span>
  <input
    type="text"
    inputmode="decimal"
    value={written}
    aria-label={name}
    aria-invalid={wrong}
    onchange={(e) => take(e.currentTarget)}
    onkeydown={(e) => {
      if (e.key === 'Enter') e.currentTarget.blur();
      if (e.key === 'Escape') {
        e.currentTarget.value = written;
        wrong = false;
        e.currentTarget.blur();
      }
    }}
  />
  {#if unit}<span>{unit}</span>{/if}
</label>
{#if wrong}
  <p class="sentence" role="alert">
    {name} takes a number{Number.isFinite(min) ? ` from ${min}` : ''}{Number.isFinite(max)
      ? ` to ${max}`
      : ''}. Nothing was changed.
  </p>
{/if}

<style>
  .wrong {
    border-color: var(--brick);
  }
  .sentence {
    margin: 2px 0;
    font-size: 12.5px;
    color: var(--brick);
  }
</style>
