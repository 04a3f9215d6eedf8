<script lang="ts">
  import { isOffered } from '$lib/desk/command';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { stepSet } from './step-set';

  interface Props {
    workplace: Workplace;
    id: string;
    /** Icon only, its name in a tip. */
    bare?: boolean;
  }
  let { workplace, id, bare = false }: Props = $props();

  const { command } = stepSet();
  const c = $derived(command(id));
  const says = $derived(c.says?.(workplace) ?? c.title);
  const key = $derived(c.keys?.[0]?.replace('Mod', 'Ctrl'));
  const Icon = $derived(c.icon);
  // While the pointer drags, the row of actions stays as it is: what can be done then shows at its end.
  let offered = $state(false);
  $effect.pre(() => {
    if (!workplace.desk.pointing.pressing) offered = isOffered(c, workplace);
  });
  const on = $derived(c.on?.(workplace));
</script>

<!-- One that can do nothing now keeps the keyboard where it is, and can still be read. -->
<button
  class={bare ? 'icon-button' : 'ledge-button'}
  aria-label={bare ? says : undefined}
  aria-pressed={on}
  aria-keyshortcuts={c.keys?.[0]?.replace('Mod', 'Control')}
  aria-disabled={!offered}
  data-tip={key ? `${says} (${key})` : says}
  onclick={() => offered && c.run(workplace)}
>
  {#if Icon}<Icon size={bare ? 20 : 18} strokeWidth={1.75} />{/if}
  {#if !bare}
    <span>{c.title}</span>
    {#if key}<kbd class="key">{key}</kbd>{/if}
  {/if}
</button>

<style>
  button[aria-disabled='true'] {
    opacity: 0.42;
    cursor: default;
  }
  .ledge-button {
    display: flex;
    flex: none;
    align-items: center;
    gap: 7px;
    min-height: 36px;
    padding: 0 10px;
    border: 1px solid transparent;
    border-radius: 6px;
    white-space: nowrap;
  }
  .ledge-button:hover:not([aria-disabled='true']) {
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
  @media (pointer: coarse) {
    .ledge-button {
      min-height: 44px;
    }
    kbd {
      display: none;
    }
  }
</style>
