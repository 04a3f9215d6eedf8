<script lang="ts">
  import Pause from '@lucide/svelte/icons/pause';
  import Play from '@lucide/svelte/icons/play';
  import { paintList, withTracedLines } from '@mirrot/core';
  import { onMount, untrack } from 'svelte';
  import { DrawnView, MARGIN_PX } from '$lib/bed/drawn-view.svelte';
  import Layer from '$lib/bed/Layer.svelte';
  import Painted from '$lib/bed/Painted.svelte';
  import Pictures from '$lib/bed/Pictures.svelte';
  import PanArea from '$lib/bed/PanArea.svelte';
  import { fitted, moveBetween } from '$lib/desk/view';
  import { growingOf } from '$lib/desk/growing.svelte';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import Stem from './Stem.svelte';
  import { workTime } from './words';

  // How the drawing grew, change by change, in the bed's own view.
  let { workplace }: { workplace: Workplace } = $props();
  const { desk } = $derived(workplace);
  const growing = $derived(growingOf(workplace));
  const { looking } = $derived(desk);
  const drawn = new DrawnView(untrack(() => workplace.desk.looking));
  const moved = $derived(moveBetween(drawn.view, looking.view));
  const transform = $derived(`translate(${moved.x}px, ${moved.y}px) scale(${moved.scale})`);
  const art = $derived(growing.art && withTracedLines(growing.art));
  const count = $derived(growing.known?.count ?? 0);
  const told = $derived(
    growing.known
      ? `change ${growing.at} of ${count}, ${workTime(growing.known.workMs[growing.at]!)} of work, ${growing.known.anchors[growing.at]} anchors`
      : '',
  );
  let picture = $state(false);

  /** How high the foot is, screen pixels. */
  const FOOT_PX = 94;
  const PACES = [2, 8, 30, 120] as const;
  /** Changes a second; the whole in a quarter of a minute at first. */
  const WHOLE_S = 15;
  let pace: number = $state(8);
  let runs = $state(false);
  onMount(() => {
    // All of the sheet is seen above the foot; afterwards the bed is looked at as before.
    const before = looking.view;
    const { width, height } = looking.bed;
    looking.jump(fitted(looking.sheetBox, { width, height: height - FOOT_PX }));
    const giveBack = growing.use(workplace.project.id, workplace);
    return () => {
      looking.jump(before);
      giveBack();
    };
  });
  $effect(() => {
    if (growing.known) pace = PACES.find((p) => growing.known!.count / p <= WHOLE_S) ?? PACES.at(-1)!;
  });
  $effect(() => {
    if (!runs) return;
    let place = untrack(() => growing.at);
    let before = performance.now();
    let frame = requestAnimationFrame(function step(now) {
      place += ((now - before) / 1000) * pace;
      before = now;
      if (Math.floor(place) !== growing.at) growing.goTo(Math.floor(place));
      if (place >= count) runs = false;
      else frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  });
  function play(): void {
    if (!runs && growing.at >= count) growing.goTo(0);
    runs = !runs;
  }
  function go(changes: number): void {
    runs = false;
    growing.goTo(changes);
  }
</script>

<section class="replay" aria-label="Replay">
  <PanArea {desk}>
    <div class="moving" style:transform>
      {#if picture}<Pictures {desk} view={drawn.view} margin={MARGIN_PX} alone />{/if}
      {#if art}
        <Layer {desk} view={drawn.view} margin={MARGIN_PX}>
          {#if !picture}
            <rect width={art.sheet.width} height={art.sheet.height} fill={art.sheet.ground ?? '#fffdf8'} />
          {/if}
          <Painted parts={paintList(art)} place="replay" seeing={desk.picture.seeing} />
        </Layer>
      {/if}
    </div>
  </PanArea>
  <div class="foot">
    {#if growing.known && count > 0 && !growing.trouble}
      <Stem anchors={growing.known.anchors} at={growing.at} text={told} change={go} />
    {/if}
    {#if growing.trouble}
      <p>{growing.trouble}</p>
      <button class="plain-button" onclick={() => void growing.open(workplace.project.id, workplace)}>
        Open it again
      </button>
    {:else if growing.known && count === 0}
      <p>Nothing was changed yet: there is nothing to replay.</p>
    {:else if growing.known}
      <button class="plain-button" onclick={play}>
        {#if runs}<Pause size={16} strokeWidth={1.75} />Pause{:else}<Play
            size={16}
            strokeWidth={1.75}
          />Play{/if}
      </button>
      <p class="told" role="status">{told}</p>
      <select aria-label="Speed of the replay" bind:value={pace}>
        {#each PACES as p (p)}<option value={p}>{p} changes a second</option>{/each}
      </select>
      <span class="switch"><Toggle label="Picture" on={picture} change={(on) => (picture = on)} /></span>
    {:else}
      <p role="status">Fetching how the drawing grew.</p>
    {/if}
    <button class="plain-button" onclick={() => (workplace.replayShown = false)}>Back to the bed</button>
  </div>
</section>

<style>
  .replay {
    position: absolute;
    inset: 0;
    display: flex;
    flex-direction: column;
    background: var(--desk);
  }
  .moving {
    position: absolute;
    inset: 0;
    transform-origin: 0 0;
    will-change: transform;
    pointer-events: none;
  }
  .foot {
    position: relative;
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 10px;
    margin-top: auto;
    padding: 6px 12px;
    border-top: 1px solid var(--line);
    background: var(--paper);
  }
  p {
    margin: 0;
  }
  .told {
    flex: 1;
    color: var(--quiet);
    font-variant-numeric: tabular-nums;
  }
  .switch {
    flex: none;
    width: 104px;
  }
</style>
