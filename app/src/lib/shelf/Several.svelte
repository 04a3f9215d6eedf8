<script lang="ts">
  import { fetchSeveral } from '$lib/desk/project-api';
  import { reportPage } from '$lib/report/api';
  import { saveFile } from '$lib/ui/files';
  import type { Notice } from '$lib/ui/notice';
  import { SEVERAL_KINDS, type SeveralKind } from '$lib/wire';

  // Several projects written at once, into one zip file.
  interface Props {
    ids: readonly string[];
    all: () => void;
    done: () => void;
    say: (message: Notice) => void;
    fail: (error: unknown) => void;
  }
  let { ids, all, done, say, fail }: Props = $props();
  let as: SeveralKind = $state('zip');
  const WORDS: Readonly<Record<SeveralKind, string>> = {
    zip: 'bundles',
    svg: 'SVG',
    png: 'PNG',
    pdf: 'PDF',
  };
  const MOST = 100;
  const count = $derived(`${ids.length} ${ids.length === 1 ? 'project' : 'projects'}`);

  async function write(): Promise<void> {
    const stopper = new AbortController();
    say({ text: `Writing ${count}`, tone: 'plain', action: { label: 'Stop', run: () => stopper.abort() } });
    try {
      saveFile('projects.zip', await fetchSeveral(ids, as, stopper.signal));
      say({ text: `projects.zip with ${count} was written.`, tone: 'good' });
      done();
    } catch (error) {
      if (stopper.signal.aborted) say({ text: 'Stopped. Nothing was written.', tone: 'plain' });
      else fail(error);
    }
  }
</script>

<div class="several" role="group" aria-label="Projects written together">
  <span>{ids.length === 0 ? 'Mark the projects to be written.' : count}</span>
  <button class="plain-button" onclick={all}>All that are shown</button>
  <label class="quiet">
    as
    <select bind:value={as} aria-label="What the projects are written as">
      {#each SEVERAL_KINDS as kind (kind)}<option value={kind}>{WORDS[kind]}</option>{/each}
    </select>
  </label>
  <button class="plain-button" disabled={ids.length === 0 || ids.length > MOST} onclick={() => void write()}>
    Write one zip file
  </button>
  {#if ids.length > 0 && ids.length <= MOST}
    <a class="plain-button" href={reportPage(ids, 'screen')}>Report on them</a>
  {/if}
  <button class="plain-button" onclick={done}>Leave it</button>
  {#if ids.length > MOST}<span class="quiet">{MOST} at a time are the most.</span>{/if}
</div>

<style>
  .several {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 12px;
    margin-bottom: 10px;
  }
  select {
    min-height: 32px;
    padding: 2px 8px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--paper);
  }
</style>
