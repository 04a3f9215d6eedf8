<script lang="ts">
  import { driftFigures, setFollow, type Follow } from '@mirrot/core';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import Range from '$lib/ui/Range.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import {
    canPutBack,
    isLeftOut,
    isMeant,
    leaveOutOfDrift,
    meanSo,
    putBack,
    rememberPlace,
    remembersPlace,
  } from '$lib/edits/meaning';
  import { offersSettling } from '$lib/edits/settling';
  import { command } from '../commands';
  import { settleChosen } from './by-the-edge';

  // How far what is chosen, or all, lies from the picture's edge.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const known = $derived(desk.choice.shapes.flatMap((id) => desk.picture.drifts.of(id) ?? []));
  const one = $derived(known.length === 1 ? known[0]! : null);
  /** Of the chosen segment alone, where one is chosen. */
  const ofSegment = $derived.by(() => {
    const { segment } = desk.choice;
    const part = segment && one?.parts.find((p) => p.path.id === segment.path);
    return segment && part ? driftFigures([part.drift], desk.habits.driftWithin, segment.segment) : null;
  });
  const figures = $derived(ofSegment ?? one?.figures ?? desk.picture.drifts.all);
  const follow = $derived(one?.shape.follow ?? 'auto');
  const found = $derived(one?.parts[0]?.follow ?? null);
  const trueSize = $derived(desk.habits.driftLight === 'true');
  const px = (v: number): string => (Number.isNaN(v) ? '–' : `${Math.abs(v).toFixed(2)} px`);
  const percent = (v: number): string => `${Math.round(100 * v)} %`;

  function setTo(to: Follow | 'auto'): void {
    desk.change('Say what drift follows', setFollow(desk.choice.shapes, to === 'auto' ? null : to), {
      choice: desk.choice,
    });
  }
</script>

<h3 class="panel-title">
  Drift <span
    >{ofSegment ? 'of the segment' : one ? 'of what is chosen' : 'of all'}{trueSize
      ? ', true size'
      : ''}</span
  >
</h3>
{#if !desk.picture.driftSettings}
  <p class="quiet">There is no picture in sight to measure by.</p>
{:else if !figures}
  <p class="quiet">Being measured …</p>
{:else if Number.isNaN(figures.mean)}
  <p class="quiet">
    {desk.choice.shapes.length > 0 && isMeant(desk)
      ? 'Meant so: it is not measured.'
      : one && !one.measured
        ? one.shape.unmeasured
          ? 'Left out of drift: it is not measured.'
          : 'What it stands in is left out of drift: it is not measured.'
        : figures.length === 0 && desk.choice.shapes.length === 0
          ? 'All that is drawn is left out of drift: nothing is measured.'
          : figures.covered > 0.5 * figures.length
            ? 'Shapes above cover it: nothing is measured.'
            : 'No edge lies in reach: nothing is measured.'}
  </p>
{:else}
  <dl>
    <div>
      <dt>mean</dt>
      <dd>{px(figures.mean)}</dd>
    </div>
    <div>
      <dt>95 %</dt>
      <dd>{px(figures.p95)}</dd>
    </div>
    <div>
      <dt>worst</dt>
      <dd>{px(figures.worst)}</dd>
    </div>
    <div>
      <dt>on edge</dt>
      <dd>{percent(figures.within)}</dd>
    </div>
  </dl>
  {#if figures.covered > 0.005 * figures.length}
    <p class="quiet">Covered on {percent(figures.covered / figures.length)} of it: left out.</p>
  {/if}
  {#if figures.measured + figures.covered < 0.995 * figures.length}
    <p class="quiet">
      No edge to speak of on {percent(1 - (figures.measured + figures.covered) / figures.length)} of it: left out.
    </p>
  {/if}
{/if}
{#if one && figures && !Number.isNaN(figures.mean)}
  {#await import('./DriftChart.svelte') then { default: DriftChart }}<DriftChart {desk} shape={one} />{/await}
{/if}
{#if known.length > 0}
  <Segments
    label="Drift follows"
    value={follow}
    options={[
      ['auto', found && follow === 'auto' ? `auto: ${found}` : 'auto'],
      ['edge', 'edge'],
      ['middle', 'middle'],
    ] as const}
    change={setTo}
  />
{/if}
{#if desk.picture.driftSettings}
  <p class="quiet">A blurred edge counts</p>
  <Segments
    label="A blurred edge counts"
    value={desk.habits.driftLight}
    options={[
      ['looks', 'as it looks'],
      ['true', 'true size'],
    ] as const}
    change={(driftLight) => desk.habits.set({ driftLight })}
  />
{/if}
{#if desk.choice.shapes.length > 0}
  <Toggle label="Meant so" on={isMeant(desk)} change={() => meanSo(desk)} />
  <Toggle label="Leave out of drift" on={isLeftOut(desk)} change={() => leaveOutOfDrift(desk)} />
  <Toggle label="Remember its place" on={remembersPlace(desk)} change={() => rememberPlace(desk)} />
  {#if canPutBack(desk)}
    <p class="quiet">Moved away: measured where it was.</p>
    <button class="plain-button" onclick={() => putBack(desk)}>Put back on the picture</button>
  {/if}
{/if}
<div class="button-row">
  <button class="plain-button" onclick={() => command('worst-first').run(workplace)}>Worst first</button>
  <button
    class="plain-button"
    aria-pressed={desk.pointing.task?.kind === 'measure'}
    onclick={() => command('measure').run(workplace)}>Measure</button
  >
</div>
<Fold title="How it is measured">
  <Range
    label="On the edge within"
    value={desk.habits.driftWithin}
    min={0.1}
    max={5}
    step={0.1}
    text="{desk.habits.driftWithin.toFixed(1)} px"
    change={(driftWithin) => desk.habits.set({ driftWithin })}
  />
  <Range
    label="Looked for within"
    value={desk.habits.driftReach}
    min={6}
    max={60}
    text="{desk.habits.driftReach} px on screen"
    change={(driftReach) => desk.habits.set({ driftReach })}
  />
  <Range
    label="Bumps ignored up to"
    value={desk.habits.driftDetail}
    min={0}
    max={60}
    text={desk.habits.driftDetail > 0 ? `${desk.habits.driftDetail} px` : 'none'}
    change={(driftDetail) => desk.habits.set({ driftDetail })}
  />
  <Toggle
    label="Measure covered parts too"
    on={desk.habits.driftCovered}
    change={(driftCovered) => desk.habits.set({ driftCovered })}
  />
  <Toggle
    label="Drift marks"
    on={desk.habits.whiskers}
    change={(whiskers) => desk.habits.set({ whiskers })}
  />
  <Toggle
    label="Settle moves anchors"
    on={desk.habits.settleAnchors}
    change={(settleAnchors) => {
      desk.habits.set({ settleAnchors });
      if (offersSettling(desk)) void settleChosen(workplace);
    }}
  />
</Fold>

<style>
  dl {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 2px 12px;
    margin: 0;
  }
  dl div {
    display: flex;
    justify-content: space-between;
  }
  dt {
    color: var(--quiet);
  }
  dd {
    margin: 0;
    font-variant-numeric: tabular-nums;
  }
</style>
