<script lang="ts">
  import { untrack } from 'svelte';
  import * as numberInput from '@zag-js/number-input';
  import { normalizeProps, useMachine } from '@zag-js/svelte';
  import { asOneStep } from './one-step';

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
    /** What an arrow adds; ten times as much with Shift, a tenth with Alt. */
    step?: number;
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
    step = 1,
    change,
  }: Props = $props();

  const id = $props.id();
  const together = asOneStep();
  const written = $derived(String(Number(value.toFixed(digits))));
  // What is seen is part of what it is called.
  const fullName = $derived(name.toLowerCase().includes(label.toLowerCase()) ? name : `${label}, ${name}`);
  /** What is being written; null while the field shows what is. */
  let typed: string | null = $state(null);
  /** The same as the hand wrote it, before it is rounded to be shown. */
  let raw: string | null = null;
  let wrong = $state(false);
  let byArrow = false;
  let focused = $state(false);
  /** What the machine was given last: it reads every new value at length, so without the keyboard a field is given none. */
  let held = $state.raw(untrack(() => written));

  function take(): void {
    if (typed === null) return;
    const text = (raw ?? typed).trim();
    const number = text === '' ? NaN : Number(text);
    wrong = !Number.isFinite(number) || number < min || number > max;
    if (wrong) return;
    typed = raw = null;
    if (number !== Number(written)) together(`${id} ${name}`, () => change(number));
  }

  const service = useMachine(numberInput.machine, () => ({
    id,
    value: typed ?? held,
    step,
    min: Number.isFinite(min) ? min : undefined,
    max: Number.isFinite(max) ? max : undefined,
    clampValueOnBlur: false,
    invalid: wrong,
    formatOptions: { useGrouping: false, maximumFractionDigits: digits },
    translations: { valueText: (text: string) => (unit ? `${text} ${unit}` : text) },
    onValueChange(d: { value: string }) {
      typed = d.value;
      if (byArrow) take();
      byArrow = false;
    },
    onValueCommit: take,
  }));
  const field = $derived(numberInput.connect(service, normalizeProps));
  const input = $derived(field.getInputProps());
  let element: HTMLInputElement | undefined = $state();
  $effect.pre(() => {
    if (focused) held = written;
  });
  // Without the keyboard it shows its number by itself.
  function showWritten(): void {
    if (!focused && typed === null && element) element.value = written;
  }
  $effect(showWritten);

  function keydown(e: KeyboardEvent & { currentTarget: HTMLInputElement }): void {
    if (e.key === 'Escape') {
      typed = raw = null;
      wrong = false;
      e.currentTarget.blur();
      return;
    }
    // Home and End are for the text.
    if (e.key === 'Home' || e.key === 'End') return;
    byArrow = e.key === 'ArrowUp' || e.key === 'ArrowDown';
    if (byArrow) raw = null;
    input.onkeydown?.(e);
    if (e.key === 'Enter') e.currentTarget.blur();
  }
  /** A comma is a decimal sign too. */
  function beforeInput(e: InputEvent & { currentTarget: HTMLInputElement }): void {
    if (!e.data?.includes(',')) return input.onbeforeinput?.(e as never);
    e.preventDefault();
    const field = e.currentTarget;
    field.setRangeText(e.data.replace(',', '.'), field.selectionStart ?? 0, field.selectionEnd ?? 0, 'end');
    field.dispatchEvent(new InputEvent('input', { bubbles: true }));
  }
  function writing(e: Event & { currentTarget: HTMLInputElement }): void {
    byArrow = false;
    raw = e.currentTarget.value;
    input.oninput?.(e as never);
  }
</script>

<label class="field" class:wrong>
  <span class="quiet">{label}</span>
  <input
    {...input}
    bind:this={element}
    aria-roledescription={undefined}
    aria-valuenow={focused ? input['aria-valuenow'] : Number(written)}
    aria-valuetext={focused ? input['aria-valuetext'] : unit ? `${written} ${unit}` : written}
    onfocus={(e) => {
      focused = true;
      input.onfocus?.(e);
    }}
    onblur={(e) => {
      input.onblur?.(e);
      held = written;
      focused = false;
      // The machine writes what it held in the frame that comes, also when the number has changed by then, as by an undo.
      requestAnimationFrame(() => requestAnimationFrame(showWritten));
    }}
    aria-label={fullName}
    aria-invalid={wrong}
    onkeydown={keydown}
    onbeforeinput={beforeInput}
    oninput={writing}
  />
  {#if unit}<span aria-hidden="true">{unit}</span>{/if}
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
