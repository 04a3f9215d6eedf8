<script lang="ts">
  import { isOffered } from '$lib/desk/command';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { COMMANDS } from '$lib/steps/commands';
  import Modal from '$lib/ui/Modal.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  let words = $state('');
  let at = $state(0);
  let search: HTMLInputElement | undefined = $state();

  const found = $derived.by(() => {
    const parts = words.toLowerCase().split(/\s+/).filter(Boolean);
    return COMMANDS.filter((c) => parts.every((p) => c.title.toLowerCase().includes(p)))
      .map((c) => ({ command: c, offered: isOffered(c, workplace) }))
      .sort((a, b) => Number(b.offered) - Number(a.offered));
  });
  const current = $derived(found[Math.min(at, found.length - 1)]);

  function close(): void {
    workplace.finder = false;
    words = '';
    at = 0;
  }
  function run(entry = current): void {
    if (!entry?.offered) return;
    close();
    entry.command.run(workplace);
  }
  function key(e: KeyboardEvent): void {
    const step = { ArrowDown: 1, ArrowUp: -1 }[e.key];
    if (step) {
      e.preventDefault();
      at = Math.min(found.length - 1, Math.max(0, at + step));
      document.getElementById(`found-${found[at]?.command.id}`)?.scrollIntoView({ block: 'nearest' });
    } else if (e.key === 'Enter') {
      e.preventDefault();
      run();
    }
  }
</script>

<Modal open={workplace.finder} title="Find a command" {close} high width={520} first={() => search ?? null}>
  <div class="field">
    <input
      bind:this={search}
      class="search"
      type="text"
      dir="auto"
      role="combobox"
      aria-label="Command"
      aria-expanded="true"
      aria-controls="found"
      aria-activedescendant={current ? `found-${current.command.id}` : undefined}
      placeholder="Write a word of it"
      bind:value={words}
      oninput={() => (at = 0)}
      onkeydown={key}
    />
  </div>
  <div class="found" id="found" role="listbox" aria-label="Commands" tabindex="-1">
    {#each found as entry (entry.command.id)}
      <!-- svelte-ignore a11y_click_events_have_key_events -->
      <div
        id="found-{entry.command.id}"
        role="option"
        tabindex="-1"
        aria-selected={entry === current}
        aria-disabled={!entry.offered}
        class:offered={entry.offered}
        onclick={() => run(entry)}
      >
        <span>{entry.command.title}</span>
        <span>
          {#each entry.command.keys ?? [] as k (k)}<kbd class="key">{k.replace('Mod', 'Ctrl')}</kbd>{/each}
        </span>
      </div>
    {/each}
    {#if found.length === 0}<p class="quiet none">No command has these words.</p>{/if}
  </div>
</Modal>

<style>
  .found {
    margin-top: 8px;
    overflow-y: auto;
  }
  .found > div {
    display: flex;
    justify-content: space-between;
    padding: 6px 8px;
    border-radius: 6px;
    color: var(--quiet);
  }
  .found > div.offered {
    color: var(--text);
    cursor: pointer;
  }
  .found > div[aria-selected='true'] {
    background: var(--ledge);
  }
  kbd {
    margin-left: 4px;
    font-family: inherit;
  }
  .none {
    padding: 8px;
  }
</style>
