<script lang="ts">
  import type { Machine, Played } from '@mirrot/core';
  import { clock, metres } from './words';

  // What a file comes to on the machine, and what is wrong with it.
  let { played, machine }: { played: Played; machine: Machine } = $props();
  const doubled = $derived(played.doubled.reduce((sum, { length }) => sum + length, 0));
  const dense = $derived(played.way.drawn > 0 ? (played.places / (played.way.drawn / 10)).toFixed(1) : '–');
  const thickest = $derived(Math.max(0, ...played.crowded.map(({ rate }) => rate)));
  const count = $derived(played.crowded.length);
</script>

<dl>
  <div>
    <dt>{machine.tool === 'pen' ? 'drawn' : 'cut'}</dt>
    <dd>{metres(played.way.drawn)}</dd>
  </div>
  <div>
    <dt>travelled</dt>
    <dd>{metres(played.way.travel)}</dd>
  </div>
  <div>
    <dt>lifts</dt>
    <dd>{played.way.lifts}</dd>
  </div>
  <div>
    <dt>time</dt>
    <dd>{clock(played.seconds)}</dd>
  </div>
  <div>
    <dt>places to the cm</dt>
    <dd>{dense}</dd>
  </div>
  <div class:bad={doubled > 0}>
    <dt>drawn twice</dt>
    <dd>{metres(doubled)}</dd>
  </div>
</dl>
{#if count > 0}
  <p>
    At {count}
    {count === 1 ? 'place' : 'places'} the file asks for up to {thickest.toFixed(0)} places a second; this machine
    takes {machine.placesPerSecond}. Thin the lines out, or go slower.
  </p>
{/if}
{#if played.unknown.length > 0}<p>Not carried out: {played.unknown.join(', ')}.</p>{/if}

<style>
  dl {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
    margin: 0;
  }
  div {
    display: flex;
    gap: 6px;
    align-items: baseline;
  }
  dt {
    font-size: 12.5px;
    color: var(--quiet);
  }
  dd {
    margin: 0;
    font-variant-numeric: tabular-nums;
  }
  .bad dd,
  p {
    color: var(--brick);
  }
  p {
    margin: 2px 0;
  }
</style>
