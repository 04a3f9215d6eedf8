<script lang="ts">
  import House from '@lucide/svelte/icons/house';
  import Users from '@lucide/svelte/icons/users';
  import { goto } from '$app/navigation';
  import { ServerError } from '$lib/desk/api';
  import Notice from '$lib/ui/Notice.svelte';
  import type { Notice as Message } from '$lib/ui/notice';
  import type { OfferedExercise } from '$lib/wire-practice';
  import { practiseAgain, startExercise } from './api';
  import { px } from './words';

  // The exercises as the backs of seed packets, easiest first.
  let { exercises }: { exercises: readonly OfferedExercise[] } = $props();
  let notice: Message | null = $state.raw(null);
  let starting: string | null = $state(null);

  async function start({ id, from }: OfferedExercise): Promise<void> {
    if (starting) return;
    starting = id;
    try {
      const project = await (from === null ? startExercise(id) : practiseAgain(from));
      await goto(`/projects/${project.id}`);
    } catch (error) {
      notice = {
        text:
          error instanceof ServerError ? error.message : 'The exercise could not be begun. Please try again.',
        tone: 'bad',
      };
    } finally {
      starting = null;
    }
  }
</script>

<svelte:head><title>Practice · Mirrot</title></svelte:head>

<main>
  <header>
    <a class="plain-button" href="/"><House size={16} strokeWidth={1.75} />Shelf</a>
    <div>
      <h1>Practice</h1>
      <p class="quiet">Pictures whose true outline is known. Draw, hand in, and see how near you came.</p>
    </div>
    <a class="plain-button class" href="/practice/class"><Users size={16} strokeWidth={1.75} />A class</a>
  </header>
  {#if exercises.length === 0}<p class="quiet">No exercises ship with this server.</p>{/if}
  <ol class="packets">
    {#each exercises as e, i (e.id)}
      <li class="packet packet-paper">
        <h2><span class="quiet">{i + 1}</span> {e.title}</h2>
        <img src={e.thumb} alt="" width="240" height="180" loading="lazy" />
        <ol class="todo">
          {#each e.todo as line, n (n)}<li>{line}</li>{/each}
        </ol>
        <dl>
          <div>
            <dt>takes about</dt>
            <dd>{e.minutes} min</dd>
          </div>
          <div>
            <dt>handed in</dt>
            <dd>{e.tries === 0 ? '' : e.tries === 1 ? 'once' : `${e.tries} times`}</dd>
          </div>
          <div>
            <dt>nearest so far</dt>
            <dd>{e.best === null ? '' : px(e.best)}</dd>
          </div>
        </dl>
        <button
          class="plain-button"
          disabled={starting !== null}
          aria-label="Begin {e.title}"
          onclick={() => void start(e)}
        >
          {starting === e.id ? 'Laying it out' : 'Begin'}
        </button>
      </li>
    {/each}
  </ol>
</main>
<Notice {notice} close={() => (notice = null)} />

<style>
  main {
    min-height: 100%;
    padding: 22px max(28px, calc(50% - 580px)) 60px;
  }
  header {
    display: flex;
    align-items: center;
    gap: 16px;
    margin-bottom: 22px;
  }
  header p {
    margin: 0;
  }
  .class {
    margin-inline-start: auto;
  }
  h1 {
    font-size: 24px;
    line-height: 1.1;
  }
  .packets {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
    gap: 18px;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  .packet {
    display: flex;
    flex-direction: column;
    gap: 8px;
    padding: 14px 16px;
  }
  h2 {
    font-size: 16px;
  }
  img {
    width: 100%;
    aspect-ratio: 4 / 3;
    height: auto;
    border-radius: 4px;
    object-fit: cover;
  }
  .todo {
    flex: 1;
    margin: 0;
    padding-inline-start: 20px;
    list-style: decimal;
  }
  dl {
    margin: 0;
    font-variant-numeric: tabular-nums;
  }
  dl > div {
    display: flex;
    justify-content: space-between;
    min-height: 24px;
    border-bottom: 1px solid var(--line);
  }
  dt {
    color: var(--quiet);
  }
  dd {
    margin: 0;
  }
  .packet > .plain-button {
    justify-content: center;
  }
</style>
