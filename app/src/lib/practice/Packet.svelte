<script lang="ts">
  import { goto } from '$app/navigation';
  import { holdingsOf } from '@mirrot/core';
  import { onMount } from 'svelte';
  import { ServerError } from '$lib/desk/api';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import type { GhostAnswer, PractisedAnswer } from '$lib/wire-practice';
  import { answerPage, getCoach, getGhost, getPractised, sendAttempt } from './api';
  import { effortNow } from './effort';
  import { frameAt, linesOnSheet, standing } from './race';
  import Table from './Table.svelte';
  import { ALL_WELL, COACH, px, time } from './words';

  // The back of a packet, beside the bed while its exercise is done. It says nothing by itself.
  let { workplace }: { workplace: Workplace } = $props();
  const { project, saving, desk } = $derived(workplace);
  const COACHED = 'mirrot-coach';
  /** The coach waits until the hand has rested for so long. */
  const REST_MS = 500;
  let practised = $state.raw<PractisedAnswer | null>(null);
  let handing = $state(false);
  const last = $derived(practised?.attempts.findLast(({ here }) => here) ?? null);

  onMount(() => {
    const fail = (error: unknown): void => workplace.say(sentence(error), 'bad');
    getPractised(project.id).then((found) => (practised = found), fail);
  });

  // With the coach on, one line says what would help most, told anew once what was drawn is kept.
  let coached = $state(globalThis.localStorage?.getItem(COACHED) === 'on');
  let advice: string | null = $state(null);
  $effect(() => {
    const kept = saving.state === 'kept';
    void saving.revision;
    if (!coached || !kept) return;
    let wanted = true;
    const timer = setTimeout(() => {
      getCoach(project.id).then(
        ({ advice: found }) => wanted && (advice = found ? COACH[found.code](found.anchor ?? 0) : ALL_WELL),
        () => wanted && (advice = null),
      );
    }, REST_MS);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  });
  function turnCoach(on: boolean): void {
    coached = on;
    advice = null;
    globalThis.localStorage?.setItem(COACHED, on ? 'on' : 'off');
  }

  // The best attempt, drawn along at its own pace: where it stands is looked at so often.
  const RACE_MS = 250;
  let racing = $state(false);
  let ghost = $state.raw<GhostAnswer | null>(null);
  let elapsed = $state(0);
  const frame = $derived(ghost && frameAt(ghost.frames, elapsed));
  const anchors = $derived(holdingsOf(desk.art).anchors);
  async function race(on: boolean): Promise<void> {
    racing = on;
    if (!on) return void (ghost = null);
    try {
      const best = await getGhost(project.id);
      // It may have been switched off while it was fetched.
      if (!racing) return;
      elapsed = effortNow(project.id).seconds;
      ghost = best;
    } catch (error) {
      racing = false;
      workplace.say(sentence(error), 'bad');
    }
  }
  $effect(() => {
    if (!ghost) return;
    const timer = setInterval(() => (elapsed = effortNow(project.id).seconds), RACE_MS);
    return () => clearInterval(timer);
  });
  $effect(() => {
    const picture = desk.picture.traced;
    if (!frame || !picture) return;
    const { looking } = desk;
    looking.ghost = linesOnSheet(frame, picture);
    return () => (looking.ghost = null);
  });

  const sentence = (error: unknown): string =>
    error instanceof ServerError
      ? error.message
      : 'The exercise could not be fetched. Reload the page; nothing is lost.';

  async function handIn(): Promise<void> {
    if (handing) return;
    handing = true;
    try {
      if (!(await saving.settled(3000)))
        return workplace.say('The newest changes are not on the server yet, so nothing was handed in. Try again when it is back.', 'bad'); // prettier-ignore
      await sendAttempt(project.id, effortNow(project.id));
      await goto(answerPage(project.id));
    } catch (error) {
      workplace.say(sentence(error), 'bad');
    } finally {
      handing = false;
    }
  }
</script>

{#if practised}
  {@const { title, todo, aids, minutes } = practised.exercise}
  <Fold title="Exercise: {title}" figure="{minutes} min" open>
    <ol>
      {#each todo as line, i (i)}<li>{line}</li>{/each}
    </ol>
    {#if aids.length > 0}<p class="quiet">Helps: {aids.join(', ')}.</p>{/if}
    <Toggle label="Coach" on={coached} change={turnCoach} />
    {#if coached}<p class="advice" role="status">{advice ?? ''}</p>{/if}
    {#if practised.attempts.length > 0}
      <Toggle label="Race the best" on={racing} change={(on) => void race(on)} />
      {#if ghost}
        <p class="quiet">
          Attempt {ghost.number}: {px(ghost.mean)} in {time(ghost.seconds)}.
          {standing(ghost.frames, elapsed, anchors)}
        </p>
      {/if}
    {/if}
    <Table attempts={last ? [{ name: 'last', attempt: last }] : []} />
    <div class="button-row">
      <button class="plain-button" disabled={handing} onclick={() => void handIn()}>Hand in</button>
      {#if last}<a class="plain-button" href={answerPage(project.id)}>Show the answer</a>{/if}
    </div>
  </Fold>
{/if}

<style>
  ol {
    margin: 0;
    padding-inline-start: 20px;
    list-style: decimal;
  }
  p {
    margin: 0;
    font-size: 13px;
  }
  .advice {
    min-height: 38px;
    padding-inline-start: 10px;
    border-inline-start: 3px solid var(--leaf);
  }
</style>
