<script lang="ts">
  import { isOffered } from '$lib/desk/command';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { command } from '$lib/steps/commands';

  interface Props {
    workplace: Workplace;
    id: string;
    /** Icon only, its name in a tooltip. */
    bare?: boolean;
  }
  let { workplace, id, bare = false }: Props = $props();

  const c = $derived(command(id));
  const says = $derived(c.says?.(workplace) ?? c.title);
  const key = $derived(c.keys?.[0]?.replace('Mod', 'Ctrl'));
  const Icon = $derived(c.icon);
  const offered = $derived(isOffered(c, workplace));
  const on = $derived(c.on?.(workplace));
</script>

<button
  class={bare ? 'icon-button' : 'ledge-button'}
  aria-label={bare ? says : undefined}
  aria-pressed={on}
  aria-keyshortcuts={c.keys?.[0]?.replace('Mod', 'Control')}
  title={key ? `${says} (${key})` : says}
  disabled={!offered}
  onclick={() => c.run(workplace)}
>
  {#if Icon}<Icon size={bare ? 20 : 18} strokeWidth={1.75} />{/if}
  {#if !bare}
    <span>{c.title}</span>
    {#if key}<kbd class="key">{key}</kbd>{/if}
  {/if}
</button>

<style>
  button:disabled {
    opacity: 0.42;
  }
  .ledge-button {
    display: flex;
    align-items: center;
    gap: 7px;
    min-height: 36px;
    padding: 0 10px;
    border: 1px solid transparent;
    border-radius: 6px;
    white-space: nowrap;
  }
  .ledge-button:hover:not(:disabled) {
    border-color: var(--line);
    background: var(--paper);
  }
  .ledge-button[aria-pressed='true'] {
    border-color: var(--carrot);
    background: var(--paper);
  }
  kbd {
    font-family: inherit;
  }
</style>
