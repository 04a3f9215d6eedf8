<script lang="ts">
  import { nameProblem } from '@mirrot/core';
  import { untrack } from 'svelte';
  import { ServerError } from '$lib/desk/api';
  import { projectAgain } from '$lib/desk/project-api';
  import Modal from '$lib/ui/Modal.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import type { AgainRequest, ProjectAnswer } from '$lib/wire';

  // A project made of another: all of it, or just what is chosen.
  interface Props {
    project: ProjectAnswer;
    close: () => void;
    made: (id: string) => void;
  }
  let { project, close, made }: Props = $props();

  let name = $state(untrack(() => `${project.name} 2`.slice(0, 500)));
  const keep = $state({ drawing: true, layers: true, palette: true, pictures: true });
  let wrong: string | null = $state(null);
  let busy = $state(false);
  let open = $state(true);
  let field: HTMLInputElement | undefined = $state();

  async function start(e: SubmitEvent): Promise<void> {
    e.preventDefault();
    const wanted = name.trim();
    wrong = nameProblem(wanted);
    if (wrong !== null) return;
    if (busy) return;
    busy = true;
    wrong = null;
    const parts = Object.entries(keep).flatMap(([part, on]) => (on ? [part] : [])) as AgainRequest['keep'];
    try {
      made((await projectAgain(project.id, { name: wanted, keep: parts })).id);
    } catch (error) {
      wrong =
        error instanceof ServerError ? error.message : 'The project could not be made. Please try again.';
      busy = false;
    }
  }
  function leave(): void {
    open = false;
    // The dialog gives the focus back before it goes.
    setTimeout(close, 150);
  }
</script>

<Modal {open} title="New project from {project.name}" close={leave} width={420} first={() => field ?? null}>
  <form onsubmit={start}>
    <label class="field">
      <span class="quiet">name</span>
      <input type="text" dir="auto" maxlength="500" bind:value={name} bind:this={field} />
    </label>
    <p class="quiet">Its sheet is the same. What else goes along:</p>
    <Toggle label="the drawing" on={keep.drawing} change={(on) => (keep.drawing = on)} />
    {#if !keep.drawing}
      <Toggle label="its layers, empty" on={keep.layers} change={(on) => (keep.layers = on)} />
      <Toggle label="its colours" on={keep.palette} change={(on) => (keep.palette = on)} />
      <Toggle label="its pictures" on={keep.pictures} change={(on) => (keep.pictures = on)} />
    {:else}
      <p class="quiet">With the drawing go its layers, colours and pictures.</p>
    {/if}
    {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
    <div class="actions">
      <button type="button" class="plain-button" onclick={leave}>Leave it</button>
      <button type="submit" class="main-button" aria-disabled={busy}>Start</button>
    </div>
  </form>
</Modal>

<style>
  form {
    display: flex;
    flex-direction: column;
    gap: 10px;
  }
  .wrong {
    color: var(--brick);
    overflow-wrap: anywhere;
  }
  .actions {
    display: flex;
    justify-content: flex-end;
    gap: 10px;
  }
</style>
