<script lang="ts">
  // Several widths in which a file of pixels is written at once.
  let { widths, change }: { widths: readonly number[]; change: (widths: number[]) => void } = $props();
  const MOST = 20;
  const LARGEST_PX = 20_000;
  let wrong = $state(false);

  function take(text: string): void {
    const numbers = text
      .split(/[\s,;]+/)
      .filter(Boolean)
      .map(Number);
    wrong = numbers.length > MOST || numbers.some((n) => !Number.isInteger(n) || n < 1 || n > LARGEST_PX);
    if (!wrong) change([...new Set(numbers)].sort((a, b) => a - b));
  }
</script>

<label class="field" class:wrong>
  <span class="quiet">widths</span>
  <input
    type="text"
    inputmode="numeric"
    placeholder="16, 32, 64"
    aria-label="Several widths, pixels"
    aria-invalid={wrong}
    value={widths.join(', ')}
    onchange={(e) => take(e.currentTarget.value)}
  />
  <span aria-hidden="true">px</span>
</label>
{#if wrong}
  <p class="sentence" role="alert">
    Widths are whole pixels from 1 to 20,000 with commas between, {MOST} at most. Nothing was changed.
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
