<script lang="ts">
  import {
    bringBack,
    compareArt,
    findNode,
    MirrotError,
    paintList,
    shapesOf,
    wholePaths,
    type Art,
    type ArtComparison,
  } from '@mirrot/core';
  import { goto } from '$app/navigation';
  import { onMount } from 'svelte';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import Pencil from '@lucide/svelte/icons/pencil';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import Painted from '$lib/bed/Painted.svelte';
  import { getCopy, ServerError } from '$lib/desk/api';
  import { changeCopy, deleteCopy, projectAgain } from '$lib/desk/project-api';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { newId } from '$lib/ids';
  import { age } from '$lib/ui/ages';
  import NameField from '$lib/ui/NameField.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import type { CopyAnswer } from '$lib/wire';

  // Kept copies of the drawing: each can be seen beside the present, gone back to, taken from, and started from.
  let { workplace }: { workplace: Workplace } = $props();
  const { desk } = $derived(workplace);
  const project = $derived(workplace.project.id);

  /** The copy that is looked at, with its drawing once it has come. */
  let opened = $state.raw(null as { readonly id: string; readonly art: Art | null } | null);
  let naming: string | null = $state(null);
  let ghosted = $state(false);
  const earlier = $derived(opened?.art ?? null);
  const compared: ArtComparison | null = $derived(earlier && compareArt(earlier, desk.drawing.kept));
  $effect(() => {
    desk.looking.ghost = ghosted && earlier ? shapesOf(earlier).filter((p) => p.shown).flatMap((p) => wholePaths(p.shape)) : null; // prettier-ignore
  });
  onMount(() => {
    // Some may have been kept by themselves meanwhile.
    void workplace.loadCopies();
    return () => (desk.looking.ghost = null);
  });

  const fail = (error: unknown): void =>
    desk.say(error instanceof ServerError || error instanceof MirrotError ? error.message : 'That could not be done. Nothing was changed. Please try again.', 'bad'); // prettier-ignore

  async function look(copy: CopyAnswer): Promise<void> {
    if (opened?.id === copy.id) {
      opened = null;
      return;
    }
    opened = { id: copy.id, art: null };
    try {
      const art = await getCopy(project, copy.id);
      // Another one may have been opened meanwhile.
      if (opened?.id === copy.id) opened = { id: copy.id, art };
    } catch (error) {
      opened = null;
      fail(error);
    }
  }
  async function change(copy: CopyAnswer, values: { name?: string; note?: string }): Promise<void> {
    try {
      const changed = await changeCopy(project, copy.id, values);
      workplace.copies = workplace.copies.map((c) => (c.id === copy.id ? changed : c));
    } catch (error) {
      fail(error);
    }
  }
  async function remove(copy: CopyAnswer): Promise<void> {
    try {
      await deleteCopy(project, copy.id);
      workplace.copies = workplace.copies.filter((c) => c.id !== copy.id);
      if (opened?.id === copy.id) opened = null;
      desk.say(`${copy.name} is gone. The drawing is as it was.`);
    } catch (error) {
      fail(error);
    }
  }
  function take(id: string): void {
    try {
      const { recipe } = bringBack(desk.drawing.kept, earlier!, id, newId);
      const name = findNode(earlier!, id)!.node.name;
      if (desk.change(`Take ${name} from the kept copy`, recipe))
        desk.say(`${name} is as it was then.`, 'good');
    } catch (error) {
      fail(error);
    }
  }
  async function startFrom(copy: CopyAnswer): Promise<void> {
    try {
      const name = `${workplace.project.name}, ${copy.name}`.slice(0, 500);
      const made = await projectAgain(project, { name, copy: copy.id, keep: ['drawing'] });
      await goto(`/projects/${made.id}`, { state: { said: `This project begins as ${copy.name} was.` } });
    } catch (error) {
      fail(error);
    }
  }
  const view = (art: Art): string => `0 0 ${art.sheet.width} ${art.sheet.height}`;
  const count = (n: number, word: string): string => (n === 0 ? '' : `${n} ${word}`);
  const inWords = ({ added, gone, altered }: ArtComparison): string =>
    [
      count(added.length, 'added since'),
      count(gone.length, 'gone since'),
      count(altered.length, 'altered since'),
    ]
      .filter(Boolean)
      .join(', ') || 'nothing was changed since';
</script>

<section>
  <h3 class="panel-title">Kept copies <span>{workplace.copies.length}</span></h3>
  {#if workplace.copies.length === 0}
    <p class="quiet">None yet. “Keep a copy” names the drawing as it is now, to go back to.</p>
  {/if}
  <ul>
    {#each workplace.copies as copy (copy.id)}
      {@const open = opened?.id === copy.id}
      <li>
        <div class="row">
          <img
            src="/api/projects/{project}/copies/{copy.id}/thumb"
            alt=""
            width="52"
            height="39"
            loading="lazy"
          />
          <div class="name">
            <NameField
              label="Name of the kept copy"
              name={copy.name}
              editing={naming === copy.id}
              change={(name) => void change(copy, { name })}
              done={() => (naming = null)}
              refuse={(text) => desk.say(text, 'bad')}
            />
            <small class="quiet">{copy.byItself ? 'kept by itself, ' : ''}{age(copy.createdAt)}</small>
          </div>
          <button
            class="icon-button"
            aria-label="Rename {copy.name}"
            data-tip="Rename"
            onclick={() => (naming = copy.id)}
          >
            <Pencil size={16} strokeWidth={1.75} />
          </button>
          <button
            class="icon-button"
            class:turned={open}
            aria-expanded={open}
            aria-label="See {copy.name} beside the present"
            data-tip="See it beside the present"
            onclick={() => void look(copy)}
          >
            <ChevronRight size={16} strokeWidth={1.75} />
          </button>
        </div>
        {#if open}
          <div class="beside">
            <label class="field">
              <span class="quiet">note</span>
              <input
                type="text"
                dir="auto"
                maxlength="500"
                value={copy.note}
                onchange={(e) => void change(copy, { note: e.currentTarget.value })}
              />
            </label>
            {#if earlier && compared}
              <div class="pair">
                {#each [['then', earlier], ['now', desk.drawing.kept]] as const as [when, art] (when)}
                  <figure>
                    <svg viewBox={view(art)} role="img" aria-label="The drawing as it is {when}">
                      <Painted parts={paintList(art)} place="copy-{when}" seeing={desk.picture.seeing} />
                    </svg>
                    <figcaption class="quiet">{when}</figcaption>
                  </figure>
                {/each}
              </div>
              <p role="status">{inWords(compared)}</p>
              <Toggle label="its lines on the bed" on={ghosted} change={(on) => (ghosted = on)} />
              {#if compared.gone.length + compared.altered.length > 0}
                <ul class="parts">
                  {#each [...compared.gone, ...compared.altered].slice(0, 60) as id (id)}
                    {@const node = findNode(earlier, id)!.node}
                    <li class="row">
                      <span class="name" dir="auto"
                        >{node.name}<small class="quiet"
                          >{compared.gone.includes(id) ? 'gone' : 'altered'}</small
                        ></span
                      >
                      <button
                        class="plain-button"
                        aria-label="Take {node.name} as it was"
                        onclick={() => take(id)}>Take</button
                      >
                    </li>
                  {/each}
                </ul>
              {/if}
            {:else}
              <p class="quiet" role="status">Fetching it</p>
            {/if}
            <div class="ways">
              <button class="plain-button" onclick={() => void workplace.goBackTo(copy)}>Go back to it</button
              >
              <button class="plain-button" onclick={() => void startFrom(copy)}>New project from it</button>
              <button
                class="icon-button"
                aria-label="Take {copy.name} away"
                data-tip="Take it away"
                onclick={() => void remove(copy)}
              >
                <Trash2 size={16} strokeWidth={1.75} />
              </button>
            </div>
          </div>
        {/if}
      </li>
    {/each}
  </ul>
</section>

<style>
  li {
    padding: 4px 0;
  }
  .row {
    display: flex;
    align-items: center;
    gap: 6px;
  }
  img {
    flex: none;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: #fff;
    object-fit: contain;
  }
  .name {
    display: flex;
    flex: 1;
    flex-direction: column;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .turned :global(svg) {
    transform: rotate(90deg);
  }
  .beside {
    display: flex;
    flex-direction: column;
    gap: 8px;
    margin: 4px 0 6px;
    padding-left: 8px;
    border-left: 2px solid var(--leaf);
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px;
  }
  figure svg {
    display: block;
    width: 100%;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: #fff;
    isolation: isolate;
  }
  figcaption {
    font-size: 12px;
    text-align: center;
  }
  .parts {
    max-height: 180px;
    overflow-y: auto;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
</style>
