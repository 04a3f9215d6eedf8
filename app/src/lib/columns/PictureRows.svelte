<script lang="ts">
  import Image from '@lucide/svelte/icons/image';
  import { setPicture, traceFrom } from '@mirrot/core';
  import RowSwitch from './RowSwitch.svelte';
  import type { Desk } from '$lib/desk/desk.svelte';

  // The pictures of the sheet: which one is traced, which are locked and shown.
  let { desk }: { desk: Desk } = $props();
</script>

<div class="pictures" role="group" aria-label="Pictures">
  {#each [...desk.art.pictures].reverse() as p (p.id)}
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
  .dim .words {
    opacity: 0.5;
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
