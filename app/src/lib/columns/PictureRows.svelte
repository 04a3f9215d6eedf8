<script lang="ts">
  import Image from '@lucide/svelte/icons/image';
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import { movePicture, setPicture, traceFrom } from '@mirrot/core';
  import RowSwitch from './RowSwitch.svelte';
  import type { Desk } from '$lib/desk/desk.svelte';

  // The pictures of the sheet, top first: which one is traced, which are locked and shown, which lie above the drawing.
  let { desk }: { desk: Desk } = $props();
  const pictures = $derived([...desk.art.pictures].reverse());
  const sorted = $derived([...pictures.filter((p) => p.above), ...pictures.filter((p) => !p.above)]);
  /** Where the drawing lies among them. */
  const drawingAt = $derived(sorted.filter((p) => p.above).length);
  let said = $state('');

  function move(id: string, way: 'up' | 'down'): void {
    const { name } = desk.art.pictures.find((p) => p.id === id)!;
    desk.change(way === 'up' ? 'Move the picture up' : 'Move the picture down', movePicture(id, way));
    const at = sorted.findIndex((p) => p.id === id);
    said = `${name} lies ${at < drawingAt ? 'above' : 'beneath'} the drawing, ${at + 1} of ${sorted.length}`;
  }
</script>

<div class="pictures" role="group" aria-label="Pictures">
  <p class="sr-only" aria-live="polite">{said}</p>
  {#each sorted as p, i (p.id)}
    {#if drawingAt > 0 && i === drawingAt}<p class="drawing quiet">the drawing</p>{/if}
    <div class="picture" class:dim={!p.shown}>
      <button
        class="name"
        aria-pressed={desk.art.traced === p.id}
        data-tip={desk.art.traced === p.id ? `${p.name} is being traced` : `Trace ${p.name}`}
        onclick={() => void desk.change('Trace another picture', traceFrom(p.id))}
      >
        <Image size={16} strokeWidth={1.75} />
        <span class="words" dir="auto">{p.name}</span>
      </button>
      <span class="moves">
        <button
          class="icon-button"
          aria-label="Move {p.name} up"
          data-tip={i === drawingAt && !p.above ? 'Above the drawing' : 'Up'}
          onclick={() => move(p.id, 'up')}><ArrowUp size={14} strokeWidth={1.75} /></button
        >
        <button
          class="icon-button"
          aria-label="Move {p.name} down"
          data-tip={i === drawingAt - 1 ? 'Beneath the drawing' : 'Down'}
          onclick={() => move(p.id, 'down')}><ArrowDown size={14} strokeWidth={1.75} /></button
        >
      </span>
      <RowSwitch
        what="locked"
        of={p}
        turn={() =>
          void desk.change(
            p.locked ? 'Unlock the picture' : 'Lock the picture',
            setPicture(p.id, { locked: !p.locked }),
          )}
      />
      <RowSwitch
        what="shown"
        of={p}
        turn={() =>
          void desk.change(
            p.shown ? 'Hide the picture' : 'Show the picture',
            setPicture(p.id, { shown: !p.shown }),
          )}
      />
    </div>
  {/each}
  {#if drawingAt > 0 && drawingAt === sorted.length}<p class="drawing quiet">the drawing</p>{/if}
</div>

<style>
  .pictures {
    flex: none;
    max-height: 30%;
    overflow-y: auto;
    border-top: 1px solid var(--line);
  }
  .picture {
    display: flex;
    align-items: center;
    gap: 4px;
    height: 38px;
    padding: 0 6px 0 10px;
  }
  .drawing {
    margin: 0 10px;
    border-top: 1px dashed var(--line);
    font-size: 12px;
    text-align: center;
  }
  .moves {
    display: flex;
  }
  .moves :global(.icon-button) {
    width: 24px;
    min-width: 24px;
    height: 24px;
  }
  @media (hover: hover) {
    .picture:not(:hover, :focus-within) .moves {
      opacity: 0;
    }
  }
  .dim .words {
    color: var(--quiet);
  }
  .name {
    display: flex;
    flex: 1;
    align-items: center;
    gap: 7px;
    min-width: 0;
    height: 100%;
    padding: 0 2px;
    text-align: start;
  }
  .name :global(svg) {
    flex: none;
  }
  .name[aria-pressed='false'] {
    color: var(--quiet);
  }
  .words {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
</style>
