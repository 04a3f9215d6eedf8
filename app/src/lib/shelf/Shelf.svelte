<script lang="ts">
  // Long by its styles: cards, drop target and bin are one page.
  import ImagePlus from '@lucide/svelte/icons/image-plus';
  import EmptySheet from '@lucide/svelte/icons/file';
  import Sprout from '@lucide/svelte/icons/sprout';
  import SunMoon from '@lucide/svelte/icons/sun-moon';
  import { goto } from '$app/navigation';
  import { onMount, untrack } from 'svelte';
  import {
    bringBackProject,
    deleteProject,
    fetchShipped,
    listProjects,
    renameProject,
    ServerError,
  } from '$lib/desk/api';
  import { importFile, putInFolder } from '$lib/desk/project-api';
  import { isBundle } from '$lib/desk/svg-file';
  import { takeNewBuild } from '$lib/ui/new-build';
  import { askForAnything } from '$lib/ui/ask';
  import { dropFiles } from '$lib/ui/drop-files';
  import { filesIn } from '$lib/ui/files';
  import { turnMode } from '$lib/ui/mode.svelte';
  import type { Notice as Message } from '$lib/ui/notice';
  import Notice from '$lib/ui/Notice.svelte';
  import type { ProjectAnswer, ShippedAnswer } from '$lib/wire';
  import { pictureWorker, type Practice } from '$lib/workers/picture';
  import Bin from './Bin.svelte';
  import Card from './Card.svelte';
  import NewProject from './NewProject.svelte';
  import { nearSight } from '$lib/ui/near-sight';
  import { foldersOf, onShelf, ORDERS, rememberedOrder, rememberOrder, type Order } from './order';

  interface Props {
    projects: ProjectAnswer[];
    /** The server is away: this is the shelf as it was last seen. */
    away: boolean;
    shipped: ShippedAnswer[];
  }
  let { projects: first, away: firstAway, shipped }: Props = $props();
  let projects = $state.raw(untrack(() => first));
  let away = $state(untrack(() => firstAway));
  let starting: readonly File[] | null = $state.raw(null);
  let notice: Message | null = $state.raw(null);
  let deletions = $state(0);
  let sought = $state('');
  let order: Order = $state(rememberedOrder());
  const folders = $derived(foldersOf(projects));
  let chosenFolder: string | null = $state(null);
  /** The folder that is looked into, while there is one. */
  const folder = $derived(chosenFolder !== null && folders.includes(chosenFolder) ? chosenFolder : null);
  const shown = $derived(onShelf(projects, sought, order, folder));
  /** Cards that stand on the shelf at once: more come when its end comes near. */
  const CARDS_MORE = 16;
  let cards = $state(CARDS_MORE);
  /** The project that another is made of. */
  let from: ProjectAnswer | null = $state.raw(null);

  const bad = (error: unknown): void => {
    notice = {
      text: error instanceof ServerError ? error.message : 'That could not be done. Please try again.',
      tone: 'bad',
    };
  };
  function begin(files: readonly File[]): void {
    notice = null;
    const bundles = files.filter(isBundle);
    if (bundles.length > 0) void takeBundles(bundles);
    else starting = files;
  }
  /** Puts the projects of bundles onto the shelf; opens one that came alone. */
  async function takeBundles(files: readonly File[]): Promise<void> {
    const stopper = new AbortController();
    const action = { label: 'Stop', run: () => stopper.abort() };
    const made: ProjectAnswer[] = [];
    try {
      for (const file of files) {
        notice = { text: `Reading ${file.name}`, tone: 'plain', action };
        made.push(...(await importFile(file, null, stopper.signal)).projects);
      }
      notice = null;
      if (made.length === 1) return void goto(`/projects/${made[0]!.id}`);
      notice = { text: `${made.length} projects were put onto the shelf.`, tone: 'good' };
    } catch (error) {
      if (stopper.signal.aborted) notice = { text: 'Stopped. Nothing more is added.', tone: 'plain' };
      else bad(error);
    }
    await list().catch(() => {});
  }
  /** Projects taken along, by id, to be written together; null while none are picked. */
  let picked: ReadonlySet<string> | null = $state.raw(null);
  function pick(id: string, on: boolean): void {
    const next = new Set(picked);
    if (on) next.add(id);
    else next.delete(id);
    picked = next;
  }
  /** Takes a shipped picture with the stand-in for a scanner or a phone. */
  async function practise(s: ShippedAnswer, how: Practice): Promise<void> {
    notice = { text: how === 'scan' ? `Scanning ${s.name}` : `Photographing ${s.name}`, tone: 'plain' };
    try {
      const blob = await pictureWorker.ask((work) =>
        work.practise(`/api/shipped/${s.file}`, how, Date.now() % 100_000),
      );
      if (!blob) throw new Error('The worker ended.');
      begin([
        new File([blob], s.file.replace('.jpg', how === 'scan' ? '-scan.jpg' : '-photo.jpg'), {
          type: blob.type,
        }),
      ]);
    } catch (error) {
      bad(error);
    }
  }
  async function list(): Promise<void> {
    ({ projects, away } = await listProjects());
  }
  onMount(() => takeNewBuild(() => starting === null));
  const rename = (p: ProjectAnswer, name: string): Promise<void> =>
    renameProject(p.id, name).then(list).catch(bad);
  const file = (p: ProjectAnswer, word: string): Promise<void> =>
    putInFolder(p.id, word).then(list).catch(bad);
  async function remove(p: ProjectAnswer): Promise<void> {
    try {
      await deleteProject(p.id);
      projects = projects.filter((q) => q.id !== p.id);
      deletions++;
      notice = {
        text: `${p.name} was deleted. It can be brought back for 30 days.`,
        tone: 'plain',
        action: {
          label: 'Bring it back',
          run: () =>
            void bringBackProject(p.id)
              .then(list)
              .then(() => deletions++)
              .catch(bad),
        },
      };
    } catch (error) {
      bad(error);
    }
  }
  function take(data: DataTransfer | null): boolean {
    const files = filesIn(data);
    if (files.length > 0) begin(files);
    return files.length > 0;
  }
</script>

<svelte:head><title>Mirrot · the shelf</title></svelte:head>
<svelte:window
  ononline={() => void list().catch(() => {})}
  onpaste={(e) => {
    if (e.target instanceof HTMLInputElement || starting) return;
    if (take(e.clipboardData)) e.preventDefault();
  }}
/>

<main class="shelf" {@attach dropFiles(begin, (text) => (notice = { text, tone: 'bad' }))}>
  <header>
    <img src="/mirrot.svg" alt="" width="44" height="44" />
    <div>
      <h1>Mirrot</h1>
      <p class="quiet">A light table for redrawing a picture by hand</p>
    </div>
    <a class="plain-button" href="/practice"><Sprout size={16} strokeWidth={1.75} />Practice</a>
    <button class="icon-button" aria-label="Turn light and dark" data-tip="Light or dark" onclick={turnMode}>
      <SunMoon size={20} strokeWidth={1.75} />
    </button>
  </header>

  <section class="new" aria-labelledby="new-title">
    <h2 id="new-title">Start with a picture</h2>
    <div class="ways">
      <button class="way first" onclick={() => askForAnything(begin)}>
        <ImagePlus size={26} strokeWidth={1.75} />
        <span><b>Choose a picture</b><br />or a bundle; drop or paste it</span>
      </button>
      {#each shipped as s (s.file)}
        <div class="way shipped">
          <button
            class="take"
            onclick={() =>
              void fetchShipped(s)
                .then((f) => begin([f]))
                .catch(bad)}
          >
            <img src="/api/shipped/{s.file}?size=thumb" alt="" loading="lazy" />
            <span>{s.name}</span>
          </button>
          <div class="stand-ins">
            <button
              data-tip="As a flatbed scanner would take it: a little turned, with a margin and paper grain"
              aria-label="Scan of {s.name}"
              onclick={() => void practise(s, 'scan')}>scan</button
            >
            <button
              data-tip="As a phone would take it: at an angle, in uneven light"
              aria-label="Phone photo of {s.name}"
              onclick={() => void practise(s, 'photo')}>phone photo</button
            >
          </div>
        </div>
      {/each}
      <button class="way" onclick={() => begin([])}>
        <EmptySheet size={26} strokeWidth={1.75} />
        <span>Empty sheet</span>
      </button>
    </div>
  </section>

  <section aria-labelledby="projects-title">
    <div class="heading">
      <h2 id="projects-title">Projects</h2>
      {#if projects.length > 1}
        <search>
          <input type="search" aria-label="Find a project" placeholder="find by name" bind:value={sought} />
          <label class="quiet">
            by
            <select bind:value={order} onchange={() => rememberOrder(order)} aria-label="Order by">
              {#each Object.entries(ORDERS) as [value, words] (value)}<option {value}>{words}</option>{/each}
            </select>
          </label>
          <button
            class="plain-button"
            aria-pressed={picked !== null}
            onclick={() => (picked = picked ? null : new Set())}>Write several</button
          >
        </search>
      {/if}
    </div>
    {#if folders.length > 0}
      <div class="folders" role="group" aria-label="Folders">
        {#each [null, ...folders] as word (word)}
          <button
            class="plain-button"
            class:in={folder === word}
            aria-pressed={folder === word}
            dir="auto"
            onclick={() => (chosenFolder = word)}>{word ?? 'all'}</button
          >
        {/each}
      </div>
      <datalist id="folder-words"
        >{#each folders as word (word)}<option value={word}></option>{/each}</datalist
      >
    {/if}
    {#if picked}
      {#await import('./Several.svelte') then { default: Several }}
        <Several
          ids={projects.filter((p) => picked!.has(p.id)).map((p) => p.id)}
          all={() => (picked = new Set(shown.map((p) => p.id)))}
          done={() => (picked = null)}
          say={(message) => (notice = message)}
          fail={bad}
        />
      {:catch}<p class="quiet">This part of the page could not be fetched. Reload the page.</p>{/await}
    {/if}
    {#if away}
      <p class="away" role="status">
        The server is away. This is the shelf as it was last seen; projects opened here lately can be opened
        and drawn on, and what you draw is sent when it is back.
        <button class="plain-button" onclick={() => void list().catch(bad)}>Look again</button>
      </p>
    {/if}
    {#if projects.length === 0}
      <p class="quiet">Nothing on the shelf yet. Choose a picture above to start.</p>
    {:else if shown.length === 0}
      <p class="quiet" role="status">No project has “{sought.trim()}” in its name.</p>
    {/if}
    <div class="cards">
      {#each shown.slice(0, cards) as p (p.id)}
        <Card
          project={p}
          rename={(name) => void rename(p, name)}
          file={(word) => void file(p, word)}
          again={() => (from = p)}
          picked={picked ? picked.has(p.id) : null}
          pick={(on) => pick(p.id, on)}
          words="folder-words"
          remove={() => void remove(p)}
          refuse={(text) => (notice = { text, tone: 'bad' })}
        />
      {/each}
    </div>
    {#if cards < shown.length}
      {#key cards}<p class="quiet" {@attach nearSight(() => (cards += CARDS_MORE))}>
          {shown.length - cards} more below
        </p>{/key}
    {/if}
  </section>
  <Bin
    {deletions}
    back={(p) => {
      notice = { text: `${p.name} is back on the shelf.`, tone: 'good' };
      void list().catch(bad);
    }}
    say={(text) => (notice = { text, tone: 'plain' })}
    fail={bad}
  />
</main>
{#if starting}
  <NewProject
    files={starting}
    close={() => (starting = null)}
    made={(id, said) => void goto(`/projects/${id}`, { state: said ? { said } : {} })}
  />
{/if}
{#if from}
  {#await import('./Again.svelte') then { default: Again }}
    <Again project={from} close={() => (from = null)} made={(id) => void goto(`/projects/${id}`)} />
  {:catch}<!-- asked again when it is pressed again -->{/await}
{/if}
<Notice {notice} close={() => (notice = null)} />

<style>
  .folders {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-bottom: 10px;
  }
  .in {
    border-color: var(--carrot);
    background: var(--carrot-wash);
  }
  .heading {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    gap: 6px 16px;
    margin-bottom: 8px;
  }
  .heading h2 {
    margin: 0;
  }
  search {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 12px;
  }
  search :is(input, select) {
    min-height: 32px;
    padding: 2px 8px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--paper);
  }
  .shelf {
    min-height: 100%;
    padding: 22px max(28px, calc(50% - 580px)) 60px;
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
  .away {
    display: flex;
    align-items: center;
    gap: 14px;
    margin-bottom: 14px;
    padding: 8px 8px 8px 14px;
    border: 1px solid var(--line);
    border-left: 4px solid var(--brick);
    border-radius: 6px;
    background: var(--paper);
  }
  .away button {
    flex: none;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 12px;
    margin-bottom: 22px;
  }
  @media (width < 760px) {
    .ways {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(160px, 1fr));
    }
    .first {
      grid-column: 1 / -1;
    }
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
  .shipped {
    flex-direction: column;
    align-items: stretch;
    gap: 4px;
    padding: 8px 10px 6px;
  }
  .take {
    display: flex;
    align-items: center;
    gap: 12px;
    text-align: start;
  }
  .stand-ins {
    display: flex;
    gap: 6px;
    font-size: 12px;
  }
  .stand-ins button {
    padding: 1px 8px;
    border: 1px solid var(--line);
    border-radius: 6px;
    color: var(--quiet);
  }
  .stand-ins button:hover {
    border-color: var(--carrot);
    color: var(--text);
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
