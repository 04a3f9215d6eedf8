<script lang="ts">
  import ImagePlus from '@lucide/svelte/icons/image-plus';
  import EmptySheet from '@lucide/svelte/icons/file';
  import SunMoon from '@lucide/svelte/icons/sun-moon';
  import { goto } from '$app/navigation';
  import { untrack } from 'svelte';
  import {
    bringBackProject,
    deleteProject,
    fetchShipped,
    listProjects,
    renameProject,
    ServerError,
  } from '$lib/desk/api';
  import { askForPictures } from '$lib/ui/ask';
  import { filesIn } from '$lib/ui/files';
  import { turnMode } from '$lib/ui/mode.svelte';
  import type { Notice as Message } from '$lib/ui/notice';
  import Notice from '$lib/ui/Notice.svelte';
  import type { ProjectAnswer, ShippedAnswer } from '$lib/wire';
  import Card from './Card.svelte';
  import NewProject from './NewProject.svelte';

  let { projects: first, shipped }: { projects: ProjectAnswer[]; shipped: ShippedAnswer[] } = $props();
  let projects = $state.raw(untrack(() => first));
  let starting: { file: File | null } | null = $state.raw(null);
  let over = $state(false);
  let notice: Message | null = $state.raw(null);

  const bad = (error: unknown): void => {
    notice = {
      text: error instanceof ServerError ? error.message : 'That could not be done. Please try again.',
      tone: 'bad',
    };
  };
  const begin = (file: File | null): void => {
    notice = null;
    starting = { file };
  };
  async function list(): Promise<void> {
    projects = await listProjects();
  }
  const rename = (p: ProjectAnswer, name: string): Promise<void> =>
    renameProject(p.id, name).then(list).catch(bad);
  async function remove(p: ProjectAnswer): Promise<void> {
    try {
      await deleteProject(p.id);
      projects = projects.filter((q) => q.id !== p.id);
      notice = {
        text: `${p.name} was deleted. It can be brought back for 30 days.`,
        tone: 'plain',
        action: { label: 'Bring it back', run: () => void bringBackProject(p.id).then(list).catch(bad) },
      };
    } catch (error) {
      bad(error);
    }
  }
  function take(data: DataTransfer | null): boolean {
    const [file] = filesIn(data);
    if (file) begin(file);
    return file !== undefined;
  }
</script>

<svelte:head><title>Mirrot · the shelf</title></svelte:head>
<svelte:window
  onpaste={(e) => {
    if (e.target instanceof HTMLInputElement || starting) return;
    if (take(e.clipboardData)) e.preventDefault();
  }}
/>

<main
  class="shelf"
  class:over
  ondragover={(e) => {
    e.preventDefault();
    over = true;
  }}
  ondragleave={(e) => {
    if (e.target === e.currentTarget) over = false;
  }}
  ondrop={(e) => {
    e.preventDefault();
    over = false;
    if (!take(e.dataTransfer)) notice = { text: 'That was no file. Nothing was added.', tone: 'bad' };
  }}
>
  <header>
    <img src="/mirrot.svg" alt="" width="44" height="44" />
    <div>
      <h1>Mirrot</h1>
      <p class="quiet">A light table for redrawing a picture by hand</p>
    </div>
    <button class="icon-button" aria-label="Turn light and dark" title="Light or dark" onclick={turnMode}>
      <SunMoon size={20} strokeWidth={1.75} />
    </button>
  </header>

  <section class="new" aria-labelledby="new-title">
    <h2 id="new-title">Start with a picture</h2>
    <div class="ways">
      <button class="way first" onclick={() => askForPictures((files) => begin(files[0] ?? null), false)}>
        <ImagePlus size={26} strokeWidth={1.75} />
        <span><b>Choose a picture</b><br />or drop or paste one here</span>
      </button>
      {#each shipped as s (s.file)}
        <button class="way" onclick={() => void fetchShipped(s).then(begin).catch(bad)}>
          <img src="/api/shipped/{s.file}" alt="" loading="lazy" />
          <span>{s.name}</span>
        </button>
      {/each}
      <button class="way" onclick={() => begin(null)}>
        <EmptySheet size={26} strokeWidth={1.75} />
        <span>Empty sheet</span>
      </button>
    </div>
  </section>

  <section aria-labelledby="projects-title">
    <h2 id="projects-title">Projects</h2>
    {#if projects.length === 0}
      <p class="quiet">Nothing on the shelf yet. Choose a picture above to start.</p>
    {/if}
    <div class="cards">
      {#each projects as p (p.id)}
        <Card
          project={p}
          rename={(name) => void rename(p, name)}
          remove={() => void remove(p)}
          refuse={(text) => (notice = { text, tone: 'bad' })}
        />
      {/each}
    </div>
  </section>
</main>
{#if starting}
  <NewProject
    file={starting.file}
    close={() => (starting = null)}
    made={(id) => void goto(`/projects/${id}`)}
  />
{/if}
<Notice {notice} close={() => (notice = null)} />

<style>
  .shelf {
    min-height: 100%;
    padding: 22px max(28px, calc(50% - 580px)) 60px;
  }
  .over {
    outline: 3px dashed var(--carrot);
    outline-offset: -10px;
  }
  header {
    display: flex;
    align-items: center;
    gap: 12px;
    margin-bottom: 22px;
  }
  header div {
    flex: 1;
  }
  h1 {
    font-size: 24px;
    line-height: 1.1;
  }
  h2 {
    margin: 18px 0 10px;
    font-size: 16px;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 12px;
  }
  .way {
    display: flex;
    align-items: center;
    gap: 12px;
    min-height: 76px;
    padding: 8px 16px 8px 10px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--paper);
    color: var(--text);
    text-align: start;
  }
  .way:hover {
    border-color: var(--carrot);
  }
  .first {
    padding-left: 18px;
    border: 2px dashed var(--quiet);
  }
  .way img {
    width: 84px;
    height: 60px;
    border-radius: 4px;
    object-fit: cover;
  }
  .cards {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
    gap: 16px;
  }
</style>
