<script lang="ts">
  import ArrowLeftRight from '@lucide/svelte/icons/arrow-left-right';
  import { EYES, type Beside, type Eyes } from '$lib/desk/comparing.svelte';
  import { getCopy, ServerError } from '$lib/desk/api';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import GroundFields from '../colour/GroundFields.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import Blink from './Blink.svelte';
  import Difference from './Difference.svelte';
  import ViewImage from './ViewImage.svelte';

  // Ways to compare picture and drawing, one at a time, and what they are seen with.
  let { workplace }: { workplace: Workplace } = $props();
  const { desk } = $derived(workplace);
  const { comparing } = $derived(desk);

  /** Upright, through the middle of the sheet: the picture on its right, the drawing on its left. */
  function wipe(on: boolean): void {
    const { width, height } = desk.art.sheet;
    comparing.wipe = on ? { at: { x: width / 2, y: height / 2 }, angle: Math.PI / 2 } : null;
  }
  const FIRST: Beside = { way: 'across', drawingFirst: false, copy: null };
  async function choose(id: string): Promise<void> {
    const { beside } = comparing;
    if (!beside) return;
    const copy = workplace.copies.find((one) => one.id === id);
    if (!copy) return void (comparing.beside = { ...beside, copy: null });
    try {
      const art = await getCopy(workplace.project.id, id);
      // It may have been left meanwhile.
      if (comparing.beside) comparing.beside = { ...comparing.beside, copy: { id, name: copy.name, art } };
    } catch (error) {
      desk.say(error instanceof ServerError ? error.message : 'The kept copy could not be fetched. Please try again.', 'bad'); // prettier-ignore
    }
  }
  const EYES_WORDS: Readonly<Record<Eyes, string>> = {
    all: 'all colours',
    grey: 'grey',
    protanopia: 'no red cones',
    deuteranopia: 'no green cones',
    tritanopia: 'no blue cones',
  };
</script>

<section>
  <h3 class="panel-title">Compare</h3>
  <p class="quiet">Hold Q for the bare picture, Shift+Q for the bare drawing.</p>
  <Toggle label="Wipe" on={comparing.wipe !== null} change={wipe} />
  <Blink {desk} />
  <Toggle
    label="Side by side"
    on={comparing.beside !== null}
    change={(on) => (comparing.beside = on ? FIRST : null)}
  />
  {#if comparing.beside}
    {@const { beside } = comparing}
    <div class="more">
      <label class="field">
        <span class="quiet">beside the drawing</span>
        <select value={beside.copy?.id ?? ''} onchange={(e) => void choose(e.currentTarget.value)}>
          <option value="">the picture</option>
          {#each workplace.copies as copy (copy.id)}<option value={copy.id}>{copy.name}</option>{/each}
        </select>
      </label>
      <Toggle
        label="one above the other"
        on={beside.way === 'down'}
        change={(on) => (comparing.beside = { ...beside, way: on ? 'down' : 'across' })}
      />
      <button
        class="plain-button"
        onclick={() => (comparing.beside = { ...beside, drawingFirst: !beside.drawingFirst })}
      >
        <ArrowLeftRight size={16} strokeWidth={1.75} />The other way round
      </button>
    </div>
  {/if}
  <Toggle label="Difference" on={comparing.difference} change={(on) => (comparing.difference = on)} />
  {#if comparing.difference}<Difference {workplace} />{/if}
  <Toggle label="Lines only" on={comparing.lines} change={(on) => (comparing.lines = on)} />
  <label class="field">
    <span>Seen with</span>
    <select value={comparing.eyes} onchange={(e) => (comparing.eyes = e.currentTarget.value as Eyes)}>
      {#each EYES as eyes (eyes)}<option value={eyes}>{EYES_WORDS[eyes]}</option>{/each}
    </select>
  </label>
  <GroundFields {workplace} />
  <ViewImage {workplace} />
</section>

<style>
  section {
    display: flex;
    flex-direction: column;
    gap: 6px;
  }
  p {
    margin: 0;
  }
  .more {
    display: flex;
    flex-direction: column;
    gap: 6px;
    padding-left: 8px;
    border-left: 2px solid var(--leaf);
  }
</style>
