<script lang="ts">
  import { endPath } from '$lib/bed/ending';
  import { chooseIds } from '$lib/edits/copying';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { groupsAbove } from '$lib/desk/focus';

  // Where in the drawing one works, while that is a group.
  let { desk }: { desk: Desk } = $props();

  const focus = $derived(desk.choosing.focus);
  const above = $derived(focus ? groupsAbove(desk.art, focus.id) : []);

  /** Works in a group around this one, or in the whole drawing; what was worked in is chosen there. */
  function leaveTo(group: string | null, left: string): void {
    endPath(desk);
    desk.choosing.focusOn(group);
    desk.choose(chooseIds(desk.art, [left]));
  }
</script>

{#if focus}
  <nav class="crumbs" aria-label="Group worked in">
    <button onclick={() => leaveTo(null, (above[0] ?? focus).id)}>Drawing</button>
    {#each above as group, i (group.id)}
      <span aria-hidden="true">›</span>
      <button dir="auto" onclick={() => leaveTo(group.id, (above[i + 1] ?? focus).id)}>{group.name}</button>
    {/each}
    <span aria-hidden="true">›</span>
    <span aria-current="location" aria-live="polite" dir="auto">{focus.name}</span>
    <button class="out" onclick={() => leaveTo(above.at(-1)?.id ?? null, focus.id)}>
      <kbd class="key">Esc</kbd> <span class="sr-only">leaves {focus.name}</span>
    </button>
  </nav>
{/if}

<style>
  .crumbs {
    position: absolute;
    top: 28px;
    left: 28px;
    display: flex;
    align-items: center;
    gap: 6px;
    max-width: calc(100% - 56px);
    padding: 3px 10px;
    overflow: hidden;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--paper);
    font-size: 13px;
    white-space: nowrap;
  }
  button {
    min-width: 24px;
    min-height: 24px;
    color: var(--leaf);
  }
  button:hover {
    text-decoration: underline;
  }
  .out {
    margin-left: 4px;
  }
  kbd {
    font-family: inherit;
  }
  [aria-current] {
    overflow: hidden;
    font-weight: 650;
    text-overflow: ellipsis;
  }
</style>
