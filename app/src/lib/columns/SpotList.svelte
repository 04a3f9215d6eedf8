<script lang="ts">
  import EyeOff from '@lucide/svelte/icons/eye-off';
  import Lock from '@lucide/svelte/icons/lock';
  import { restack, setNode, type Recipe } from '@mirrot/core';
  import ArrowUpToLine from '@lucide/svelte/icons/arrow-up-to-line';
  import { chooseShapes } from '$lib/desk/choice';
  import type { Desk } from '$lib/desk/desk.svelte';
  import Thumbnail from './Thumbnail.svelte';

  // Every shape at a spot of the bed, to choose from, with the few actions that fit.
  let { desk }: { desk: Desk } = $props();
  const WIDTH = 236;
  const ROW = 36;
  let list: HTMLElement | undefined = $state();

  const shapes = $derived((desk.pointing.listed?.shapes ?? []).flatMap((id) => desk.shapeOf(id) ?? []));
  const place = $derived.by(() => {
    if (!desk.pointing.listed) return '';
    const { at } = desk.pointing.listed;
    const high = Math.min(8, shapes.length) * ROW + 10;
    // Beside the spot, never over it.
    const x = at.x + 14 + WIDTH > desk.looking.bed.width ? at.x - 14 - WIDTH : at.x + 14;
    const y = Math.max(4, Math.min(at.y - 12, desk.looking.bed.height - high - 4));
    return `${Math.max(4, x)}px ${y}px`;
  });
  $effect(() => {
    if (desk.pointing.listed) list?.querySelector('button')?.focus();
  });

  function close(): void {
    desk.pointing.listed = null;
    document.querySelector<HTMLElement>('[role=application]')?.focus({ preventScroll: true });
  }
  function choose(id: string): void {
    desk.choose(chooseShapes([id], desk.step === 'refine' ? 'path' : 'shape'));
    close();
  }
  function act(label: string, recipe: Recipe): void {
    desk.change(label, recipe);
    close();
  }
  function keydown(e: KeyboardEvent): void {
    const buttons = [...(list?.querySelectorAll<HTMLElement>('.choose') ?? [])];
    const at = buttons.findIndex((b) => b.parentElement?.contains(document.activeElement));
    const step = { ArrowDown: 1, ArrowUp: -1 }[e.key];
    if (e.key === 'Escape') close();
    else if (step) buttons[(at + step + buttons.length) % buttons.length]?.focus();
    else return;
    e.preventDefault();
    e.stopPropagation();
  }
</script>

{#if desk.pointing.listed}
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <ul
    bind:this={list}
    class="list"
    aria-label="What lies here, topmost first"
    style:translate={place}
    style:width="{WIDTH}px"
    onkeydown={keydown}
    onfocusout={(e) => !list?.contains(e.relatedTarget as Node | null) && (desk.pointing.listed = null)}
  >
    {#each shapes as shape (shape.id)}
      <li>
        <button class="choose" dir="auto" onclick={() => choose(shape.id)}>
          <Thumbnail {desk} {shape} place="spot" /><span>{shape.name}</span>
        </button>
        <button
          class="icon-button"
          aria-label="Bring {shape.name} to the top"
          title="To the top"
          onclick={() => act('Move to the top', restack([shape.id], 'top'))}
          ><ArrowUpToLine size={15} strokeWidth={1.75} /></button
        >
        <button
          class="icon-button"
          aria-label="Hide {shape.name}"
          title="Hide"
          onclick={() => act('Hide', setNode(shape.id, { shown: false }))}
          ><EyeOff size={15} strokeWidth={1.75} /></button
        >
        <button
          class="icon-button"
          aria-label="Lock {shape.name}"
          title="Lock"
          onclick={() => act('Lock', setNode(shape.id, { locked: true }))}
          ><Lock size={15} strokeWidth={1.75} /></button
        >
      </li>
    {/each}
  </ul>
{/if}

<style>
  .list {
    position: absolute;
    top: 0;
    left: 0;
    max-height: 298px;
    margin: 0;
    padding: 4px;
    overflow-y: auto;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--paper);
    list-style: none;
  }
  li {
    display: flex;
    align-items: center;
    height: 36px;
  }
  .choose {
    display: flex;
    flex: 1;
    align-items: center;
    gap: 8px;
    min-width: 0;
    height: 34px;
    padding: 0 4px;
    border-radius: 4px;
    text-align: start;
  }
  .choose span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .choose:hover,
  .choose:focus-visible {
    background: var(--ledge);
  }
</style>
