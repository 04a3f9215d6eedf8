<script lang="ts">
  import CopyPlus from '@lucide/svelte/icons/copy-plus';
  import Folder from '@lucide/svelte/icons/folder';
  import Pencil from '@lucide/svelte/icons/pencil';
  import Trash from '@lucide/svelte/icons/trash-2';
  import { age } from '$lib/ui/ages';
  import NameField from '$lib/ui/NameField.svelte';
  import type { ProjectAnswer } from '$lib/wire';

  interface Props {
    project: ProjectAnswer;
    rename: (name: string) => void;
    /** Puts it into the folder of a word; none with an empty one. */
    file: (folder: string) => void;
    /** Asks for a project made of this one. */
    again: () => void;
    remove: () => void;
    /** Names the list of words that folders have. */
    words: string;
    refuse: (sentence: string) => void;
    /** Whether it is taken along with others; null while none are picked. */
    picked: boolean | null;
    pick: (on: boolean) => void;
  }
  let { project, rename, file, again, remove, words, refuse, picked, pick }: Props = $props();
  let naming = $state(false);
  let filing = $state(false);
  let word: HTMLInputElement | undefined = $state();
  $effect(() => word?.focus());
  function filed(keep: boolean): void {
    if (!filing || !word) return;
    const folder = word.value.trim();
    filing = false;
    if (keep && folder !== project.folder) file(folder);
  }
  const { width, height, unit } = $derived(project.sheet);
  const { shapes, painted } = $derived(project);
  const drift = $derived(project.drift === null ? '' : `, drift ${project.drift.toFixed(1)} px`);
  /** How far it is: what is drawn, and what of it has its colour. */
  const done = $derived(
    shapes === 0
      ? 'nothing drawn yet'
      : `${shapes} ${shapes === 1 ? 'shape' : 'shapes'}, ${painted === shapes ? 'all' : painted} painted${drift}`,
  );
  const short = (v: number): string => String(Number(v.toFixed(1)));
</script>

<article class="card">
  <!-- Opening begins a visit of its own: not for a pointer that only passes by. -->
  <a href="/projects/{project.id}" aria-label="Open {project.name}" data-sveltekit-preload-data="off">
    <img src="/api/projects/{project.id}/thumb" alt="" loading="lazy" />
  </a>
  {#if picked !== null}
    <label class="pick">
      <input
        type="checkbox"
        aria-label="Take {project.name}"
        checked={picked}
        onchange={(e) => pick(e.currentTarget.checked)}
      />
    </label>
  {/if}
  <div class="under">
    <div class="words">
      <h3>
        <NameField
          label="Name of the project"
          name={project.name}
          editing={naming}
          change={rename}
          done={() => (naming = false)}
          {refuse}
        />
      </h3>
      <p class="quiet">{short(width)} × {short(height)} {unit} · {age(project.updatedAt)}</p>
      <p class="quiet">{done}</p>
      {#if filing}
        <input
          class="word"
          type="text"
          dir="auto"
          maxlength="60"
          list={words}
          aria-label="Folder of {project.name}"
          placeholder="a word, or none"
          value={project.folder}
          bind:this={word}
          onkeydown={(e) => {
            if (e.key === 'Enter') filed(true);
            if (e.key === 'Escape') filed(false);
          }}
          onblur={() => filed(true)}
        />
      {:else if project.folder}
        <p class="quiet folder" dir="auto">in {project.folder}</p>
      {/if}
    </div>
    <button
      class="icon-button"
      aria-label="Rename {project.name}"
      data-tip="Rename"
      onclick={() => (naming = true)}
    >
      <Pencil size={16} strokeWidth={1.75} />
    </button>
    <button
      class="icon-button"
      aria-label="Put {project.name} into a folder"
      data-tip="Folder"
      onclick={() => (filing = true)}
    >
      <Folder size={16} strokeWidth={1.75} />
    </button>
    <button
      class="icon-button"
      aria-label="New project from {project.name}"
      data-tip="New project from it"
      onclick={again}
    >
      <CopyPlus size={16} strokeWidth={1.75} />
    </button>
    <button class="icon-button" aria-label="Delete {project.name}" data-tip="Delete" onclick={remove}>
      <Trash size={16} strokeWidth={1.75} />
    </button>
  </div>
</article>

<style>
  .pick {
    position: absolute;
    top: 6px;
    left: 6px;
    display: grid;
    place-items: center;
    width: 32px;
    height: 32px;
    border-radius: 6px;
    background: var(--paper);
  }
  .pick input {
    width: 18px;
    height: 18px;
    accent-color: var(--carrot);
  }
  .card {
    position: relative;
    overflow: hidden;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--paper);
  }
  a {
    display: grid;
    place-items: center;
    height: 190px;
    padding: 12px;
    background: var(--ledge);
  }
  img {
    max-width: 100%;
    max-height: 166px;
    border: 1px solid var(--line);
    background: #fffdf8;
  }
  .under {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: flex-end;
    gap: 2px;
    padding: 9px 8px 9px 12px;
  }
  .words {
    flex: 0 0 100%;
    min-width: 0;
  }
  h3 {
    display: flex;
    font-size: 15px;
  }
  p {
    font-size: 12.5px;
  }
  .word {
    width: 100%;
    padding: 2px 6px;
    border: 1px solid var(--line);
    border-radius: 4px;
    font-size: 12.5px;
  }
  .folder {
    overflow-wrap: anywhere;
  }
</style>
