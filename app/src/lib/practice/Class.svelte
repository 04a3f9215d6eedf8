<script lang="ts">
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import FileDown from '@lucide/svelte/icons/file-down';
  import FolderInput from '@lucide/svelte/icons/folder-input';
  import Sprout from '@lucide/svelte/icons/sprout';
  import { goto } from '$app/navigation';
  import { ServerError } from '$lib/desk/api';
  import { askForFiles } from '$lib/ui/ask';
  import { dropFiles } from '$lib/ui/drop-files';
  import { saveFile } from '$lib/ui/files';
  import Notice from '$lib/ui/Notice.svelte';
  import type { Notice as Message } from '$lib/ui/notice';
  import Segments from '$lib/ui/Segments.svelte';
  import { answerPage, replayPage } from './api';
  import { classBook, type HandedIn } from './class.svelte';
  import { attemptOf, classCsv, COLUMNS, inOrder, type Order, type Told } from './class-columns';
  import Miniature from './Miniature.svelte';

  // The bundles that a class handed in, a line each, as in a sowing book.
  let order: Order = $state({ key: 'file', up: true });
  let told: Told = $state('last');
  let opening: string | null = $state(null);
  let notice: Message | null = $state.raw(null);
  const rows = $derived(inOrder(classBook.rows, order, told));
  const { progress } = $derived(classBook);

  const say = (text: string, tone: Message['tone'] = 'bad'): void => void (notice = { text, tone });
  const take = (files: readonly File[]): void =>
    void classBook.add(files).catch(() => say('The bundles could not be read. Please try again.'));
  const sortBy = (key: string): void => void (order = { key, up: order.key === key ? !order.up : true });

  async function open(row: HandedIn, page: (project: string) => string): Promise<void> {
    if (opening) return;
    opening = row.id;
    try {
      await goto(page(await classBook.open(row)));
    } catch (error) {
      say(error instanceof ServerError ? error.message : 'The bundle could not be opened. Please try again.');
    } finally {
      opening = null;
    }
  }
  async function writeCsv(): Promise<void> {
    try {
      // A spreadsheet takes it for UTF-8 by the mark at its beginning.
      saveFile('class.csv', new Blob(['\ufeff', await classCsv(rows, told)], { type: 'text/csv' }));
    } catch {
      say('The table could not be written. Reload the page and put the bundles in again.');
    }
  }
</script>

<svelte:head><title>A class · Mirrot</title></svelte:head>

<main {@attach dropFiles(take, say)}>
  <header>
    <a class="plain-button" href="/practice"><Sprout size={16} strokeWidth={1.75} />All exercises</a>
    <div>
      <h1>What a class handed in</h1>
      <p class="quiet">
        Put in the bundles: each becomes a line. Nothing of them is kept here until one is opened.
      </p>
    </div>
  </header>
  <div class="actions">
    <button class="main-button" onclick={() => askForFiles('application/zip,.zip', take, true)}>
      <FolderInput size={18} strokeWidth={1.75} />Put in bundles
    </button>
    {#if classBook.rows.length > 0}
      <button class="plain-button" onclick={() => void writeCsv()}>
        <FileDown size={16} strokeWidth={1.75} />Write as CSV
      </button>
      <div class="told">
        <span class="quiet" aria-hidden="true">attempt</span>
        <Segments
          label="Attempt told of"
          value={told}
          options={[
            ['last', 'last'],
            ['nearest', 'nearest'],
          ]}
          change={(value) => (told = value)}
        />
      </div>
      <button class="plain-button" onclick={() => classBook.clear()}>Clear the table</button>
    {/if}
    {#if progress}
      <span class="reading" role="status">
        {Math.min(progress.done + 1, progress.of)} of {progress.of}
        <progress value={progress.done} max={progress.of} aria-label="Bundles read"></progress>
        <button class="plain-button" onclick={() => classBook.stop()}>Stop</button>
      </span>
    {/if}
  </div>
  {#if classBook.rows.length > 0}
    <!-- Wider than narrow pages: it is scrolled by itself, by keys too. -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="book packet-paper" role="region" aria-label="Table of the class" tabindex="0">
      <table>
        <thead>
          <tr>
            <td></td>
            {#each COLUMNS as { key, title } (key)}
              {@const sorted = order.key === key}
              <th scope="col" aria-sort={sorted ? (order.up ? 'ascending' : 'descending') : 'none'}>
                <button onclick={() => sortBy(key)}>
                  {title}
                  {#if sorted && order.up}<ArrowUp size={13} strokeWidth={2} />
                  {:else if sorted}<ArrowDown size={13} strokeWidth={2} />{/if}
                </button>
              </th>
            {/each}
            <td></td>
          </tr>
        </thead>
        <tbody>
          {#each rows as row (row.id)}
            {@const attempt = attemptOf(row, told)}
            <tr>
              <td>
                {#if attempt && row.entry?.truth}<Miniature
                    truth={row.entry.truth}
                    lines={attempt.lines}
                  />{/if}
              </td>
              {#each COLUMNS as column, i (column.key)}
                {@const words = column.tell(column.value(row, attempt), attempt)}
                {#if i === 0}<th scope="row" dir="auto">{words}</th>
                {:else if row.trouble && i === 1}
                  <td class="trouble" colspan={COLUMNS.length - 1}>
                    {[row.entry?.exercise, row.trouble].filter(Boolean).join(': ')}
                  </td>
                {:else if !row.trouble}<td class:words={i === 1}>{words}</td>{/if}
              {/each}
              <td class="open">
                {#if row.entry && !row.trouble}
                  <button
                    class="plain-button"
                    disabled={opening !== null}
                    aria-label="Answer of {row.name}"
                    onclick={() => void open(row, answerPage)}
                    >{opening === row.id ? 'Opening' : 'Answer'}</button
                  >
                  <button
                    class="plain-button"
                    disabled={opening !== null}
                    aria-label="Replay of {row.name}"
                    onclick={() => void open(row, replayPage)}>Replay</button
                  >
                {/if}
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <p class="quiet">Distances in pixels of the picture. Anchors: drawn / of the original.</p>
  {:else if !progress}
    <p class="empty quiet">
      No bundle yet. A bundle is what “Save as a bundle” on an answer gives, and what Export writes of a
      project.
    </p>
  {/if}
</main>
<Notice {notice} close={() => (notice = null)} />

<style>
  main {
    min-height: 100%;
    padding: 22px max(28px, calc(50% - 620px)) 60px;
  }
  header {
    display: flex;
    align-items: center;
    gap: 16px;
    margin-bottom: 18px;
  }
  header p {
    margin: 0;
  }
  h1 {
    font-size: 24px;
    line-height: 1.1;
  }
  .actions {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 10px;
    margin-bottom: 14px;
  }
  .told {
    display: grid;
    grid-template-columns: auto 150px;
    align-items: center;
    gap: 8px;
  }
  .book + p {
    margin-top: 8px;
  }
  .reading {
    display: inline-flex;
    align-items: center;
    gap: 10px;
    font-variant-numeric: tabular-nums;
  }
  progress {
    width: 120px;
    accent-color: var(--carrot);
  }
  .book {
    overflow-x: auto;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-variant-numeric: tabular-nums;
  }
  tbody tr {
    border-top: 1px solid var(--line);
  }
  th,
  td {
    height: 46px;
    padding: 2px 8px;
    text-align: end;
    white-space: nowrap;
  }
  thead :is(th, td) {
    height: 36px;
  }
  th {
    font-weight: 400;
  }
  th[scope='row'],
  th:nth-child(-n + 3),
  .words {
    max-width: 190px;
    overflow: hidden;
    text-align: start;
    text-overflow: ellipsis;
  }
  th[scope='row'] {
    font-weight: 600;
  }
  thead button {
    display: inline-flex;
    align-items: center;
    gap: 3px;
    min-height: 28px;
    padding: 0 4px;
    margin: 0 -4px;
    border-radius: 4px;
    color: var(--quiet);
  }
  thead button:hover,
  [aria-sort='ascending'] button,
  [aria-sort='descending'] button {
    color: var(--text);
  }
  .trouble {
    color: var(--quiet);
    text-align: start;
    white-space: normal;
  }
  .empty {
    padding: 40px 0;
    text-align: center;
  }
</style>
