<script lang="ts">
  import {
    addPicture,
    MirrotError,
    placedPicture,
    removePicture,
    seenSize,
    together,
    traceFrom,
    type PlacedPicture,
    type Point,
  } from '@mirrot/core';
  import { uploadPicture } from '$lib/desk/api';
  import { registered } from '$lib/desk/registering';
  import { borrowPixels, loadPixels, type LoadedPicture } from '$lib/desk/rasters';
  import { sentenceOf, type Workplace } from '$lib/desk/workplace.svelte';
  import { newId } from '$lib/ids';
  import { askForPictures } from '$lib/ui/ask';
  import Modal from '$lib/ui/Modal.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import PictureSpots from './PictureSpots.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const picture = $derived(desk.picture.traced);
  const open = $derived(workplace.dialog === 'swap' && picture !== null);

  let count: 3 | 4 = $state(3);
  let before: LoadedPicture | null = $state.raw(null);
  let after: { loaded: LoadedPicture; picture: PlacedPicture } | null = $state.raw(null);
  let there: readonly Point[] = $state.raw([]);
  let here: readonly Point[] = $state.raw([]);
  let busy: string | null = $state(null);
  let wrong: string | null = $state(null);

  $effect(() => {
    if (!open || !picture) return;
    wrong = null;
    here = there = [];
    const giveBack = borrowPixels(picture, (l) => (before = l), () => (wrong = 'The picture’s pixels could not be fetched.')); // prettier-ignore
    return () => {
      giveBack();
      after?.loaded.image?.close();
      after = null;
    };
  });

  const spread = (n: number, { width, height }: { width: number; height: number }): Point[] =>
    ([[0.2, 0.2], [0.8, 0.2], [0.8, 0.8], [0.2, 0.8]] as const).slice(0, n).map(([x, y]) => ({ x: x * width, y: y * height })); // prettier-ignore

  async function bring([file]: File[]): Promise<void> {
    if (!file || !picture) return;
    busy = `Reading ${file.name}`;
    wrong = null;
    try {
      const answer = await uploadPicture(workplace.project.id, file);
      const added = placedPicture({ id: newId(), source: answer.id, name: answer.name, width: answer.width, height: answer.height, placement: [1, 0, 0, 1, 0, 0] }); // prettier-ignore
      after = { loaded: await loadPixels(added), picture: added };
      here = spread(count, seenSize(picture));
      there = spread(count, added);
    } catch (error) {
      wrong = sentenceOf(error, 'The picture could not be read. Nothing was changed.');
    }
    busy = null;
  }
  function setCount(n: 3 | 4): void {
    count = n;
    if (!picture || !after) return;
    here = [...here, ...spread(4, seenSize(picture)).slice(here.length)].slice(0, n);
    there = [...there, ...spread(4, after.picture).slice(there.length)].slice(0, n);
  }
  const close = (): void => void (workplace.dialog = null);

  function take(): void {
    if (!picture || !after) return;
    try {
      const { wash, view, tones, veil, credit } = picture;
      const placed = { ...registered(picture, after.picture, here, there), wash, view, tones, veil, credit };
      close();
      desk.change(
        'Swap the picture',
        together(addPicture(placed), traceFrom(placed.id), removePicture(picture.id)),
      );
      desk.say('The new picture lies in the old one’s place. The drawing stays where it is.', 'good');
    } catch (error) {
      wrong = error instanceof MirrotError ? error.message : String(error);
    }
  }
</script>

<Modal {open} title="Swap the picture" {close} width={1060}>
  <p class="quiet">
    Bring a better scan of the same thing, and put each number on the same spot in both. The drawing stays
    where it is.
  </p>
  <div class="both">
    <div class="half">
      <h3>Now</h3>
      {#if before && here.length > 0}
        <PictureSpots
          label="The picture now"
          raster={before.pixels}
          image={before.image!}
          step={before.step}
          spots={here}
          names={here.map((_, i) => `Point ${i + 1} now`)}
          width={490}
          height={380}
          move={(i, to) => (here = here.map((c, j) => (j === i ? to : c)))}
        />
      {:else if before}
        <p class="wait">The points are put once the new picture is there.</p>
      {/if}
    </div>
    <div class="half">
      <h3>New</h3>
      {#if after}
        <PictureSpots
          label="The new picture"
          raster={after.loaded.pixels}
          image={after.loaded.image!}
          step={after.loaded.step}
          spots={there}
          names={there.map((_, i) => `Point ${i + 1} in the new picture`)}
          width={490}
          height={380}
          move={(i, to) => (there = there.map((c, j) => (j === i ? to : c)))}
        />
      {:else}
        <p class="wait">
          {#if busy}{busy}{:else}<button
              class="main-button"
              onclick={() => askForPictures((files) => void bring(files), false)}
              >Choose the new picture</button
            >{/if}
        </p>
      {/if}
    </div>
  </div>
  {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
  <div class="actions">
    <div class="count">
      <Segments
        label="Points"
        value={String(count) as '3' | '4'}
        options={[
          ['3', 'three points'],
          ['4', 'four, in perspective'],
        ] as const}
        change={(v) => setCount(Number(v) as 3 | 4)}
      />
    </div>
    <button class="plain-button" onclick={close}>Leave it</button>
    <button class="main-button" disabled={!after} onclick={take}>Swap</button>
  </div>
</Modal>

<style>
  .both {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 16px;
    min-height: 420px;
    margin: 8px 0;
  }
  @media (width < 760px) {
    .both {
      flex: none;
      grid-template-columns: minmax(0, 1fr);
      min-height: 0;
    }
  }
  h3 {
    margin-bottom: 4px;
    font-size: 14px;
  }
  .wait {
    display: grid;
    place-items: center;
    height: 360px;
    border: 1px dashed var(--line);
    border-radius: 6px;
    color: var(--quiet);
  }
  .wrong {
    color: var(--brick);
  }
  .actions {
    display: flex;
    justify-content: flex-end;
    align-items: center;
    gap: 10px;
  }
  .count {
    width: 300px;
    margin-right: auto;
  }
</style>
