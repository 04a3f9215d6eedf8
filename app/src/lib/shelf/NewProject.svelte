<script lang="ts">
  import { nameProblem, UNITS, type Unit } from '@mirrot/core';
  import { untrack } from 'svelte';
  import { ServerError } from '$lib/desk/api';
  import { importFile } from '$lib/desk/project-api';
  import { isDxf, isSvg, leftOut } from '$lib/desk/svg-file';
  import Modal from '$lib/ui/Modal.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import { A4, nameFromFile, startProject } from './start';

  interface Props {
    /** The pictures it starts with, the one to trace first; none for an empty sheet. */
    files: readonly File[];
    close: () => void;
    /** The project is there; `said` is what is to be said there, or nothing. */
    made: (id: string, said: string) => void;
  }
  let { files, close, made }: Props = $props();
  const file = $derived(files[0] ?? null);

  let name = $state(untrack(() => (file ? nameFromFile(file.name) : 'Untitled')));
  /** An SVG may be drawing as well as picture. */
  const svg = $derived(files.length === 1 && file !== null && isSvg(file));
  /** A DXF is a drawing and nothing else. */
  const dxf = $derived(files.length === 1 && file !== null && isDxf(file));
  let taken = $state(
    untrack(() => (files[0] && isDxf(files[0]) ? 'drawing' : 'picture')) as 'picture' | 'drawing',
  );
  let kind: 'picture' | 'own' = $state(untrack(() => (file ? 'picture' : 'own')));
  let sheet = $state({ ...A4 });
  let share: number | null = $state(null);
  let wrong: string | null = $state(null);
  const under = $derived(
    taken === 'drawing' ? 'Reading the drawing' : share! < 1 ? 'Sending the picture' : 'Reading the picture',
  );
  let open = $state(true);
  let nameField: HTMLInputElement | undefined = $state();
  let stopper: AbortController | null = null;

  const picture = $derived(file && URL.createObjectURL(file));
  let drawn = $state(true);
  $effect(() => {
    const url = picture;
    return () => {
      if (url) URL.revokeObjectURL(url);
    };
  });

  async function start(e: SubmitEvent): Promise<void> {
    e.preventDefault();
    if (share !== null) return;
    const wanted = name.trim();
    wrong = nameProblem(wanted);
    if (wrong !== null) return;
    wrong = null;
    share = 0;
    stopper = new AbortController();
    try {
      if ((svg || dxf) && taken === 'drawing') {
        const { project, left } = await importFile(file!, wanted, stopper.signal);
        return made(project.id, `The file is the drawing now.${leftOut(left)}`);
      }
      const wish = kind === 'picture' && file ? 'as the picture' : { ...sheet };
      made(await startProject(wanted, wish, files, (s) => (share = s), stopper.signal), '');
    } catch (error) {
      wrong =
        error instanceof ServerError ? error.message : 'The project could not be made. Please try again.';
      share = null;
    }
  }
  function leave(): void {
    stopper?.abort();
    open = false;
    // The dialog gives the focus back before it goes.
    setTimeout(close, 150);
  }
</script>

<Modal {open} title="New project" close={leave} width={520} first={() => nameField ?? null}>
  <form onsubmit={start}>
    {#if picture && !dxf}
      <div class="picture">
        {#if files.length > 1}<p class="quiet">
            This one is traced; {files.length - 1} more lie ready in the stack.
          </p>{/if}
        {#if drawn}<img src={picture} alt="What will be traced" onerror={() => (drawn = false)} />
        {:else}<p class="quiet">{file?.name} is shown once it has been read.</p>{/if}
      </div>
    {/if}
    <label class="field">
      <span class="quiet">name</span>
      <input type="text" dir="auto" maxlength="500" bind:value={name} bind:this={nameField} />
    </label>
    {#if svg}
      <Segments
        label="What the file is taken as"
        value={taken}
        options={[
          ['picture', 'picture to trace'],
          ['drawing', 'drawing'],
        ] as const}
        change={(v) => (taken = v)}
      />
    {/if}
    {#if taken === 'drawing'}
      <p class="quiet">
        Its shapes, groups and colours become the drawing; the sheet is as large as its page.
      </p>
    {:else if file}
      <Segments
        label="Size of the sheet"
        value={kind}
        options={[
          ['picture', 'sheet as the picture'],
          ['own', 'own size'],
        ] as const}
        change={(v) => (kind = v)}
      />
    {/if}
    {#if kind === 'own' && taken === 'picture'}
      <div class="size">
        <NumberField
          label="w"
          name="Width of the sheet"
          value={sheet.width}
          unit={sheet.unit}
          min={0.01}
          max={100_000}
          change={(v) => (sheet.width = v)}
        />
        <NumberField
          label="h"
          name="Height of the sheet"
          value={sheet.height}
          unit={sheet.unit}
          min={0.01}
          max={100_000}
          change={(v) => (sheet.height = v)}
        />
        <label class="field">
          <span class="quiet">unit</span>
          <select bind:value={sheet.unit}>
            {#each UNITS as unit (unit)}<option value={unit satisfies Unit}>{unit}</option>{/each}
          </select>
        </label>
      </div>
    {/if}
    {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
    <div class="actions">
      {#if share !== null}
        <progress value={taken === 'drawing' ? undefined : share} max="1" aria-label={under}></progress>
        <span class="quiet">{under}</span>
      {/if}
      <button type="button" class="plain-button" onclick={leave}
        >{share === null ? 'Leave it' : 'Stop'}</button
      >
      <button type="submit" class="main-button" aria-disabled={share !== null}>Start</button>
    </div>
  </form>
</Modal>

<style>
  form {
    display: flex;
    flex-direction: column;
    gap: 10px;
  }
  .picture {
    display: grid;
    place-items: center;
    min-height: 120px;
    padding: 8px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--desk);
  }
  img {
    max-width: 100%;
    max-height: 240px;
  }
  .size {
    display: grid;
    grid-template-columns: 1fr 1fr 1fr;
    gap: 8px;
  }
  .wrong {
    color: var(--brick);
    overflow-wrap: anywhere;
  }
  .actions {
    display: flex;
    justify-content: flex-end;
    align-items: center;
    gap: 10px;
  }
  progress {
    width: 110px;
    accent-color: var(--carrot);
  }
</style>
