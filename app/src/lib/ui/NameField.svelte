<script lang="ts">
  import { nameProblem } from '@mirrot/core';
  import { tick } from 'svelte';

  interface Props {
    /** What is named, for its label: "Name of the layer". */
    label: string;
    name: string;
    editing: boolean;
    change: (name: string) => void;
    /** Hears the end of it, and whether a key ended it: then the keyboard goes back to where it was. */
    done: (byKey: boolean) => void;
    refuse: (sentence: string) => void;
  }
  let { label, name, editing, change, done, refuse }: Props = $props();

  let input: HTMLInputElement | undefined = $state();
  let over = false;

  $effect(() => {
    if (editing) void tick().then(() => input?.select());
  });

  function finish(keep: boolean, byKey: boolean): void {
    if (over || !input) return;
    over = true;
    const wanted = input.value.trim();
    const problem = nameProblem(wanted);
    if (keep && problem !== null) refuse(`${problem} The name stays as it was.`);
    else if (keep && wanted !== name) change(wanted);
    done(byKey);
    void tick().then(() => (over = false));
  }
</script>

{#if editing}
  <input
    bind:this={input}
    class="name"
    dir="auto"
    aria-label={label}
    value={name}
    maxlength="500"
    onblur={() => finish(true, false)}
    onkeydown={(e) => {
      e.stopPropagation();
      if (e.key === 'Enter') finish(true, true);
      if (e.key === 'Escape') finish(false, true);
    }}
  />
{:else}
  <span class="shown" dir="auto" data-tip={name}>{name}</span>
{/if}

<style>
  .name {
    width: 100%;
    min-width: 60px;
    padding: 1px 4px;
    border: 1px solid var(--plum);
    border-radius: 4px;
    background: light-dark(#ffffff, #22241f);
    color: var(--text);
    font: inherit;
  }
  .shown {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
</style>
