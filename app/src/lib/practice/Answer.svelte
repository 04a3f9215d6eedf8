<script lang="ts">
  import FileDown from '@lucide/svelte/icons/file-down';
  import History from '@lucide/svelte/icons/history';
  import PenLine from '@lucide/svelte/icons/pen-line';
  import Sprout from '@lucide/svelte/icons/sprout';
  import Users from '@lucide/svelte/icons/users';
  import { goto } from '$app/navigation';
  import { untrack } from 'svelte';
  import { ServerError } from '$lib/desk/api';
  import Notice from '$lib/ui/Notice.svelte';
  import type { Notice as Message } from '$lib/ui/notice';
  import Toggle from '$lib/ui/Toggle.svelte';
  import type { AnswerAnswer, Attempt } from '$lib/wire-practice';
  import { practiseAgain, replayPage } from './api';
  import AttemptsChart from './AttemptsChart.svelte';
  import { classBook } from './class.svelte';
  import Table from './Table.svelte';
  import { explained, px, whatNext } from './words';

  // What was handed in beside the truth: on the picture, in figures, and over all attempts.
  let { answer, project }: { answer: AnswerAnswer; project: string } = $props();
  const attempts = $derived(answer.attempts);
  const nameOf = (a: Attempt): string => `attempt ${attempts.indexOf(a) + 1}`;
  let shownId: string = $state(untrack(() => answer.attempts.findLast(({ here }) => here)!.id));
  let besideId: string | null = $state(null);
  let ghost = $state(true);
  let notice: Message | null = $state.raw(null);
  const shown = $derived(attempts.find(({ id }) => id === shownId) ?? attempts.at(-1)!);
  const beside = $derived(attempts.find(({ id }) => id === besideId && id !== shown.id) ?? null);
  const table = $derived(
    [shown, ...(beside ? [beside] : [])].map((attempt) => ({ name: nameOf(attempt), attempt })),
  );
  const { width, height, source } = $derived(answer.picture);

  async function again(): Promise<void> {
    try {
      const made = await practiseAgain(project);
      await goto(`/projects/${made.id}`);
    } catch (error) {
      notice = {
        text:
          error instanceof ServerError ? error.message : 'The exercise could not be begun. Please try again.',
        tone: 'bad',
      };
    }
  }
</script>

<svelte:head><title>Answer to {answer.exercise.title} · Mirrot</title></svelte:head>

<main>
  <header>
    <nav aria-label="Answer">
      <a class="plain-button" href="/projects/{project}"
        ><PenLine size={16} strokeWidth={1.75} />Back to the drawing</a
      >
      <a class="plain-button" href={replayPage(project)}><History size={16} strokeWidth={1.75} />Replay</a>
      <a class="plain-button" href="/api/projects/{project}/export.zip" download
        ><FileDown size={16} strokeWidth={1.75} />Save as a bundle</a
      >
      <a class="plain-button" href="/practice"><Sprout size={16} strokeWidth={1.75} />All exercises</a>
      {#if classBook.rows.length > 0}
        <a class="plain-button" href="/practice/class"><Users size={16} strokeWidth={1.75} />The class</a>
      {/if}
    </nav>
    <h1>{answer.exercise.title}</h1>
  </header>
  <div class="sides">
    <figure>
      <svg
        viewBox="0 0 {width} {height}"
        role="img"
        aria-label="The picture with {nameOf(shown)}{ghost ? ' and the true outline' : ''}"
      >
        <image href="/api/pictures/{source}?size=work" {width} {height} preserveAspectRatio="none" />
        {#if ghost}
          {#each answer.truth as { d }, i (i)}<path class="truth" {d} />{/each}
        {/if}
        {#if beside}<path class="beside" d={beside.lines} />{/if}
        <path class="drawn" d={shown.lines} />
        {#if shown.score.worst}
          {@const { at } = shown.score.worst}
          <circle class="worst" cx={at.x} cy={at.y} r={width / 48} />
        {/if}
      </svg>
      <figcaption>
        <span class="legend">{nameOf(shown)}</span>
        {#if beside}<span class="legend beside-legend">{nameOf(beside)}</span>{/if}
        {#if ghost}<span class="legend truth-legend">the true outline</span>{/if}
        {#if shown.score.worst}<span>ringed: farthest off, {px(shown.score.worst.distance)}</span>{/if}
      </figcaption>
    </figure>
    <section class="packet packet-paper" aria-label="Figures">
      <ol>
        {#each answer.exercise.todo as line, i (i)}<li>{line}</li>{/each}
      </ol>
      <p>{explained(shown.score)}</p>
      <Table attempts={table} />
      <h2>Next</h2>
      <p class="next">{whatNext(shown.score)}</p>
      <Toggle label="True outline" on={ghost} change={(on) => (ghost = on)} />
      {#if attempts.length > 1}
        <h2>Attempts</h2>
        <AttemptsChart {attempts} />
        <label>
          shown
          <select bind:value={shownId}>
            {#each attempts as a (a.id)}<option value={a.id}>{nameOf(a)}, {px(a.score.mean)}</option>{/each}
          </select>
        </label>
        <label>
          beside it
          <select bind:value={besideId}>
            <option value={null}>none</option>
            {#each attempts.filter(({ id }) => id !== shown.id) as a (a.id)}
              <option value={a.id}>{nameOf(a)}, {px(a.score.mean)}</option>
            {/each}
          </select>
        </label>
      {/if}
      <button class="plain-button" onclick={() => void again()}>Begin it again</button>
    </section>
  </div>
</main>
<Notice {notice} close={() => (notice = null)} />

<style>
  main {
    min-height: 100%;
    padding: 18px max(28px, calc(50% - 640px)) 40px;
  }
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px 18px;
    margin-bottom: 14px;
  }
  nav {
    display: flex;
    gap: 8px;
  }
  h1 {
    font-size: 24px;
    line-height: 1.1;
  }
  h2 {
    margin: 6px 0 0;
    font-size: 15px;
  }
  .sides {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 330px;
    gap: 20px;
    align-items: start;
  }
  @media (width < 900px) {
    .sides {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  figure {
    margin: 0;
  }
  svg {
    display: block;
    width: 100%;
    height: auto;
    border: 1px solid var(--line);
    background: var(--paper);
  }
  path,
  circle {
    fill: none;
    vector-effect: non-scaling-stroke;
  }
  .truth {
    stroke: #fff;
    stroke-width: 4;
    opacity: 0.85;
  }
  .drawn {
    stroke: #d4561c;
    stroke-width: 1.75;
  }
  .beside {
    stroke: #6a3fa0;
    stroke-width: 1.75;
    stroke-dasharray: 6 4;
  }
  .worst {
    stroke: #a32a21;
    stroke-width: 2.5;
  }
  figcaption {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
    padding-top: 6px;
    color: var(--quiet);
  }
  .legend::before {
    display: inline-block;
    width: 18px;
    margin-inline-end: 6px;
    border-top: 2px solid #d4561c;
    vertical-align: middle;
    content: '';
  }
  .beside-legend::before {
    border-top: 2px dashed #6a3fa0;
  }
  .truth-legend::before {
    border-top: 4px solid #fff;
    outline: 1px solid var(--line);
  }
  .packet {
    display: flex;
    flex-direction: column;
    gap: 8px;
    padding: 14px 16px;
  }
  .packet p {
    margin: 0;
  }
  ol {
    margin: 0;
    padding-inline-start: 20px;
    list-style: decimal;
  }
  .next {
    padding-inline-start: 10px;
    border-inline-start: 3px solid var(--leaf);
  }
  label {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 10px;
  }
  select {
    min-height: 30px;
    padding: 2px 6px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--paper);
  }
  .packet > .plain-button {
    justify-content: center;
  }
</style>
