<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { USES, useOf } from './kinds';
  import { presets } from './presets.svelte';

  // What the file is made for: what the trade asks, and what the user kept.
  let { workplace }: { workplace: Workplace } = $props();
  const out = $derived(workplace.exporting);
  const OWN = 'own:';
  const own = $derived(
    presets.list.find(({ asks }) => {
      const now = { ...out, lines: { ...out.lines, uses: {} } };
      return JSON.stringify(Object.entries(now).sort()) === JSON.stringify(Object.entries(asks).sort());
    }),
  );
  const chosen = $derived(own ? OWN + own.name : (useOf(out) ?? ''));
  let naming = $state(false);
  let name = $state('');
  let field: HTMLInputElement | undefined = $state();
  $effect(() => field?.focus());

  function take(value: string): void {
    const kept = value.startsWith(OWN) && presets.list.find((one) => OWN + one.name === value);
    if (kept) workplace.exporting = { ...kept.asks, lines: { ...kept.asks.lines, uses: out.lines.uses } };
    else Object.assign(out, USES.find(([use]) => use === value)?.[1]);
  }
  function keep(): void {
    if (name.trim() === '') return void (naming = false);
    const done = presets.keep(name, $state.snapshot(out) as typeof out);
    if (!done) workplace.say('This browser keeps nothing for Mirrot (it is full, or set so).', 'bad');
    naming = false;
  }
</script>

<label class="field">
  <span class="quiet">made for</span>
  <select aria-label="What the file is made for" value={chosen} onchange={(e) => take(e.currentTarget.value)}>
    <option value="">as set below</option>
    {#each USES as [use] (use)}<option value={use}>{use}</option>{/each}
    {#if presets.list.length > 0}
      <optgroup label="your own">
        {#each presets.list as one (one.name)}<option value={OWN + one.name}>{one.name}</option>{/each}
      </optgroup>
    {/if}
  </select>
</label>
{#if naming}
  <label class="field">
    <span class="quiet">as</span>
    <input
      type="text"
      dir="auto"
      maxlength="60"
      aria-label="Name of these settings"
      bind:value={name}
      bind:this={field}
      onkeydown={(e) => {
        if (e.key === 'Enter') keep();
        if (e.key === 'Escape') naming = false;
      }}
      onblur={keep}
    />
  </label>
{:else if own}
  <button class="plain-button" onclick={() => presets.forget(own.name)}>Forget “{own.name}”</button>
{:else if chosen === ''}
  <button
    class="plain-button"
    onclick={() => {
      name = '';
      naming = true;
    }}>Keep these settings</button
  >
{/if}
