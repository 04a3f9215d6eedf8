<script lang="ts">
  import { Combobox, useListCollection } from '@skeletonlabs/skeleton-svelte';
  import { isOffered, type Command } from '$lib/desk/command';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { stepSet } from './step-set';
  import Modal from '$lib/ui/Modal.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const { commands } = stepSet();
  let words = $state('');
  let search: HTMLElement | null = $state(null);

  interface Entry {
    readonly command: Command;
    readonly offered: boolean;
  }
  const collection = $derived.by(() => {
    const parts = words.toLowerCase().split(/\s+/).filter(Boolean);
    const items = commands
      .filter((c) => parts.every((p) => c.title.toLowerCase().includes(p)))
      .map((command): Entry => ({ command, offered: isOffered(command, workplace) }))
      .sort((a, b) => Number(b.offered) - Number(a.offered));
    return useListCollection({
      items,
      itemToString: (e) => e.command.title,
      itemToValue: (e) => e.command.id,
      isItemDisabled: (e) => !e.offered,
    });
  });

  function close(): void {
    workplace.dialog = null;
    words = '';
  }
  function run(id: string | undefined): void {
    const entry = collection.items.find((e) => e.command.id === id);
    if (!entry?.offered) return;
    close();
    entry.command.run(workplace);
  }
</script>

<Modal
  open={workplace.dialog === 'finder'}
  title="Find a command"
  {close}
  high
  width={520}
  first={() => search}
>
  <Combobox
    open
    {collection}
    inputValue={words}
    value={[]}
    inputBehavior="autohighlight"
    selectionBehavior="preserve"
    disableLayer
    onInputValueChange={(d) => d.reason === 'input-change' && (words = d.inputValue)}
    onValueChange={(d) => run(d.value[0])}
    onOpenChange={(d) => d.reason === 'escape-key' && close()}
  >
    <Combobox.Control class="field">
      <Combobox.Input class="search" dir="auto" aria-label="Command" placeholder="Write a word of it">
        {#snippet element(attributes)}<input {...attributes} bind:this={search} />{/snippet}
      </Combobox.Input>
    </Combobox.Control>
    <Combobox.Content class="found" aria-label="Commands">
      {#each collection.items as entry (entry.command.id)}
        <Combobox.Item item={entry} class="found-item">
          <span>{entry.command.title}</span>
          <span>
            {#each entry.command.keys ?? [] as k (k)}<kbd class="key">{k.replace('Mod', 'Ctrl')}</kbd>{/each}
          </span>
        </Combobox.Item>
      {/each}
    </Combobox.Content>
    {#if collection.items.length === 0}<p class="quiet none">No command has these words.</p>{/if}
  </Combobox>
</Modal>

<style>
  kbd {
    margin-left: 4px;
    font-family: inherit;
  }
  .none {
    padding: 8px;
  }
</style>
