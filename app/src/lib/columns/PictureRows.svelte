<script lang="ts">
  import Eye from '@lucide/svelte/icons/eye';
  import EyeOff from '@lucide/svelte/icons/eye-off';
  import Image from '@lucide/svelte/icons/image';
  import Lock from '@lucide/svelte/icons/lock';
  import LockOpen from '@lucide/svelte/icons/lock-open';
  import { setPicture, traceFrom } from '@mirrot/core';
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
      <button
        class="mini"
        aria-label="{p.locked ? 'Unlock' : 'Lock'} {p.name}"
        data-tip={p.locked ? 'Unlock' : 'Lock'}
        onclick={() =>
          void desk.change(
            p.locked ? 'Unlock the picture' : 'Lock the picture',
            setPicture(p.id, { locked: !p.locked }),
          )}
      >
        {#if p.locked}<Lock size={14} strokeWidth={1.75} />{:else}<LockOpen
            size={14}
            strokeWidth={1.75}
          />{/if}
      </button>
      <button
        class="mini"
        aria-label="{p.shown ? 'Hide' : 'Show'} {p.name}"
        data-tip={p.shown ? 'Hide' : 'Show'}
        onclick={() =>
          void desk.change(
            p.shown ? 'Hide the picture' : 'Show the picture',
            setPicture(p.id, { shown: !p.shown }),
          )}
      >
        {#if p.shown}<Eye size={15} strokeWidth={1.75} />{:else}<EyeOff size={15} strokeWidth={1.75} />{/if}
      </button>
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
  .mini {
    display: grid;
    flex: none;
    place-items: center;
    width: 22px;
    height: 26px;
    border-radius: 4px;
    color: var(--text);
  }
  .mini:hover {
    background: var(--desk);
  }
</style>
