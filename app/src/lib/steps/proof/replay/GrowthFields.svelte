<script lang="ts">
  import Film from '@lucide/svelte/icons/film';
  import Sprout from '@lucide/svelte/icons/sprout';
  import { withProgress } from '$lib/desk/progress';
  import { growingOf } from '$lib/desk/growing.svelte';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import Range from '$lib/ui/Range.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import { driftAlong, type DriftMoment } from './drift-along';
  import { FILM_WIDTHS, writeFilm } from './film';
  import { workTime } from './words';

  // How the drawing grew: played, written as moving pictures, charted.
  let { workplace }: { workplace: Workplace } = $props();
  const { desk } = $derived(workplace);
  const growing = $derived(growingOf(workplace));
  let open = $state(false);
  $effect(() => {
    if (open) return growing.use(workplace.project.id, workplace);
  });

  let seconds = $state(10);
  let width: number = $state(480);
  let picture = $state(false);
  const film = (kind: 'webp' | 'gif'): void => void writeFilm(workplace, kind, { width, seconds, picture });

  let drift = $state.raw<readonly DriftMoment[] | null>(null);
  const by = $derived(desk.picture.driftSettings);
  async function measure(): Promise<void> {
    let stopped = false;
    const { known } = growing;
    if (!by || !known) return;
    drift = await withProgress(
      workplace,
      'Measuring drift over time',
      () => (stopped = true),
      (tell) => driftAlong(growing.artAt, known.count, { ...by, spacing: 2 }, tell, () => stopped),
    );
  }
</script>

<Fold title="How it grew" turned={(is) => (open = is)}>
  {#if growing.trouble}
    <p>{growing.trouble}</p>
    <button class="plain-button" onclick={() => void growing.open(workplace.project.id, workplace)}>
      Open it again
    </button>
  {:else if growing.known}
    {@const { known } = growing}
    <dl aria-label="Growth">
      <dt>changes</dt>
      <dd>{known.count}</dd>
      <dt>time at work</dt>
      <dd>{workTime(known.workMs[known.count]!)}</dd>
    </dl>
    {#if known.count > 0}
      {#await import('./GrowthChart.svelte') then { default: GrowthChart }}
        <GrowthChart {known} {drift} />
      {:catch}
        <p class="quiet">The chart could not be fetched. Reload the page; nothing is lost.</p>
      {/await}
      {#if by}
        <button class="plain-button" onclick={() => void measure()}>Measure drift over time</button>
      {/if}
      <button class="plain-button" onclick={() => (workplace.replayShown = true)}>
        <Sprout size={16} strokeWidth={1.75} />Replay
      </button>
      <Range label="seconds" value={seconds} min={2} max={40} step={1} change={(v) => (seconds = v)} />
      <label class="field">
        <span class="quiet">pixels across</span>
        <select bind:value={width}
          >{#each FILM_WIDTHS as w (w)}<option value={w}>{w}</option>{/each}</select
        >
      </label>
      <Toggle label="with the picture" on={picture} change={(on) => (picture = on)} />
      <div class="ways">
        <button class="plain-button" onclick={() => film('webp')}>
          <Film size={16} strokeWidth={1.75} />WebP
        </button>
        <button class="plain-button" onclick={() => film('gif')}>
          <Film size={16} strokeWidth={1.75} />GIF
        </button>
      </div>
    {/if}
  {:else}
    <p class="quiet" role="status">Fetching how it grew.</p>
  {/if}
</Fold>

<style>
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 2px 10px;
    margin: 0;
  }
  dt {
    color: var(--quiet);
  }
  dd {
    margin: 0;
  }
  p {
    margin: 0;
  }
  .ways {
    display: flex;
    gap: 6px;
  }
</style>
