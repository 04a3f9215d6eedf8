<script lang="ts">
  import { goto } from '$app/navigation';
  import { nameProblem } from '@mirrot/core';
  import { untrack } from 'svelte';
  import { ServerError } from '$lib/desk/api';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { newExerciseRequest } from '$lib/wire-practice';
  import { makeExercise } from './api';

  // A finished project as an exercise for others: its drawing is the truth that theirs are measured by.
  let { workplace }: { workplace: Workplace } = $props();
  let title = $state(untrack(() => workplace.project.name));
  let minutes = $state(5);
  let todo = $state('Draw every shape of it.');
  let wrong: string | null = $state(null);
  let busy = $state(false);

  async function make(e: SubmitEvent): Promise<void> {
    e.preventDefault();
    const lines = todo.split('\n').map((line) => line.trim()).filter((line) => line !== ''); // prettier-ignore
    const asked = newExerciseRequest.safeParse({ title: title.trim(), minutes, todo: lines });
    wrong = nameProblem(title.trim()) ?? asked.error?.issues[0]?.message ?? null;
    if (!asked.success || busy) return;
    busy = true;
    try {
      if (!(await workplace.saving.settled(3000))) throw new ServerError(0, 'waiting', 'The newest changes are not on the server yet. Try again when it is back.'); // prettier-ignore
      const project = await makeExercise(workplace.project.id, asked.data);
      await goto(`/projects/${project.id}`);
    } catch (error) {
      wrong =
        error instanceof ServerError ? error.message : 'The exercise could not be made. Please try again.';
    } finally {
      busy = false;
    }
  }
</script>

<form onsubmit={(e) => void make(e)}>
  <p class="quiet">
    Its picture goes into a project of its own with nothing drawn. What is drawn there is measured by this
    drawing, which stays out of sight until something is handed in.
  </p>
  <label
    ><span class="quiet">title</span><input
      type="text"
      dir="auto"
      maxlength="500"
      bind:value={title}
    /></label
  >
  <label
    ><span class="quiet">what to do, up to three lines</span><textarea rows="3" bind:value={todo}
    ></textarea></label
  >
  <label
    ><span class="quiet">minutes</span><input
      type="number"
      min="1"
      max="60"
      step="1"
      bind:value={minutes}
    /></label
  >
  {#if wrong !== null}<p class="wrong" role="alert">{wrong}</p>{/if}
  <button class="plain-button" disabled={busy}>Make the exercise</button>
</form>

<style>
  form,
  label {
    display: flex;
    flex-direction: column;
    gap: 6px;
  }
  label {
    gap: 2px;
  }
  p {
    margin: 0;
    font-size: 13px;
  }
  input,
  textarea {
    min-height: 30px;
    padding: 3px 8px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--paper);
  }
  .plain-button {
    align-self: start;
  }
  .wrong {
    color: var(--brick);
  }
</style>
