<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import { bringBackProject, clearFromBin, listBin } from '$lib/desk/api';
  import { age, until } from '$lib/ui/ages';
  import Modal from '$lib/ui/Modal.svelte';
  import type { BinAnswer } from '$lib/wire';
  import { untrack } from 'svelte';

  // What was deleted, for as long as it can be brought back.
  interface Props {
    /** Rises with every deletion: the bin is looked into anew. */
    deletions: number;
    /** Something was brought back. */
    back: (project: BinAnswer) => void;
    say: (text: string) => void;
    fail: (error: unknown) => void;
  }
  let { deletions, back, say, fail }: Props = $props();

  let held: readonly BinAnswer[] = $state.raw([]);
  let open = $state(false);
  let clearing: BinAnswer | null = $state.raw(null);
  let title: HTMLElement | undefined = $state();

  /** While the server is away there is no bin to look into: it stays as it was. */
  const look = (): Promise<void> =>
    listBin().then(
      (list) => void (held = list),
      () => {},
    );
  $effect(() => {
    void deletions;
    untrack(() => void look());
  });

  /** Does something to a project in the bin; the keyboard stays in the bin, whose row is gone. */
  async function act(project: BinAnswer, what: () => Promise<unknown>): Promise<boolean> {
    try {
      await what();
      held = held.filter((p) => p.id !== project.id);
      title?.focus();
      return true;
    } catch (error) {
      fail(error);
      return false;
    }
  }
  async function bringBack(project: BinAnswer): Promise<void> {
    if (await act(project, () => bringBackProject(project.id))) back(project);
  }
  async function clear(project: BinAnswer): Promise<void> {
    clearing = null;
    if (await act(project, () => clearFromBin(project.id))) say(`${project.name} was deleted for good.`);
  }
  const many = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;
</script>

{#if held.length > 0}
  <section aria-labelledby="bin-title">
    <h2 id="bin-title">
      <button bind:this={title} aria-expanded={open} onclick={() => (open = !open)}>
        {#if open}<ChevronDown size={18} />{:else}<ChevronRight size={18} />{/if}
        Bin <span class="quiet">{many(held.length, 'project')}</span>
      </button>
    </h2>
    {#if open}
      <p class="quiet">
        What is deleted can be brought back for 30 days, with its pictures, steps and copies.
      </p>
      <ul>
        {#each held as p (p.id)}
          <li>
            <img
              src="/api/bin/{p.id}/thumb"
              alt=""
              onerror={(e) => (e.currentTarget as HTMLElement).classList.add('none')}
            />
            <div class="words">
              <b dir="auto">{p.name}</b>
              <span class="quiet"
                >{many(p.shapes, 'shape')} · deleted {age(p.deletedAt)}, gone {until(p.goneAt)}</span
              >
            </div>
            <button class="plain-button" aria-label="Bring {p.name} back" onclick={() => void bringBack(p)}
              >Bring it back</button
            >
            <button class="plain-button" aria-label="Delete {p.name} for good" onclick={() => (clearing = p)}
              >Delete for good</button
            >
          </li>
        {/each}
      </ul>
    {/if}
  </section>
{/if}
<Modal open={clearing !== null} title="Delete for good" close={() => (clearing = null)}>
  {#if clearing}
    {@const project = clearing}
    <p><b dir="auto">{project.name}</b> goes with its steps and kept copies. This cannot be undone.</p>
    <div class="answers">
      <button class="plain-button" onclick={() => (clearing = null)}>Keep it in the bin</button>
      <button class="plain-button danger" onclick={() => void clear(project)}>Delete for good</button>
    </div>
  {/if}
</Modal>

<style>
  section {
    margin-top: 28px;
  }
  h2 {
    font-size: 16px;
  }
  h2 button {
    display: flex;
    align-items: center;
    gap: 6px;
    font: inherit;
  }
  h2 span {
    font-weight: 400;
    font-size: 14px;
  }
  ul {
    display: grid;
    gap: 8px;
    margin-top: 10px;
  }
  li {
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 8px 12px 8px 8px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--paper);
  }
  img {
    width: 64px;
    height: 48px;
    border-radius: 4px;
    background: #fffdf8;
    object-fit: contain;
  }
  :global(img.none) {
    visibility: hidden;
  }
  .words {
    flex: 1;
    display: flex;
    flex-direction: column;
    min-width: 0;
  }
  .words b {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .danger {
    border-color: var(--brick);
    color: var(--brick);
  }
  .answers {
    display: flex;
    justify-content: flex-end;
    gap: 10px;
    margin-top: 16px;
  }
</style>
