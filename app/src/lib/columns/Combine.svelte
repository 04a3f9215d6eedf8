<script lang="ts">
  import {
    boxHeight,
    boxWidth,
    drawnData,
    EMPTY_BOX,
    fromPx,
    shapeBounds,
    UNIT_DIGITS,
    uniteBoxes,
    type Combined,
    type Shape,
  } from '@mirrot/core';
  import { untrack } from 'svelte';
  import { sameShapes } from '$lib/desk/linework.svelte';
  import { passingOffer } from '$lib/desk/passing';
  import { withProgress } from '$lib/desk/progress';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import {
    COMBINE_WORDS,
    closeChosenMisses,
    combineChosen,
    nearMisses,
    combining,
    outlinesOf,
    toCombine,
    waysFor,
    type CombineWay,
  } from '$lib/edits/combining';
  import Fold from '$lib/ui/Fold.svelte';
  import { pathWorker } from '$lib/workers/paths';

  // What the chosen shapes would become, each way as a miniature drawn from the shapes themselves.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const wanted = $derived(toCombine(desk));
  const { shapes, lines } = $derived(wanted);
  const all = $derived([...shapes, ...lines]);
  let opened = $state(false);
  interface Known {
    readonly of: readonly Shape[];
    readonly combined: Combined;
  }
  let known: Known | null = $state.raw<Known | null>(null);
  const combined = $derived(known && sameShapes(known.of, all) ? known.combined : null);

  $effect(() => {
    const of = all;
    const [outlines, cuts] = [outlinesOf(shapes), outlinesOf(lines).flat()];
    if (!opened || of.length < 2 || combined) return;
    void untrack(() =>
      withProgress(workplace, 'Combining', pathWorker.end, () =>
        pathWorker.ask((work) => work.combine(outlines, cuts)),
      ).then((found) => found && (known = { of, combined: found })),
    );
  });

  /** More than this are not looked through on the page for what nearly meets. */
  const MOST_LOOKED_AT = 40;
  const misses = $derived(combined && all.length <= MOST_LOOKED_AT ? nearMisses(wanted) : null);
  const length = (px: number): string => {
    const { unit } = desk.art.sheet;
    return `${fromPx(px, unit).toFixed(UNIT_DIGITS[unit] + 1)} ${unit}`;
  };
  const passing = $derived(passingOffer(desk, 'combine'));
  $effect(() => {
    void all;
    return () => passing.leaveAfter();
  });
  const box = $derived.by(() => {
    const b = all.map((s) => shapeBounds(s)).reduce(uniteBoxes, EMPTY_BOX);
    const size = Math.max(boxWidth(b), boxHeight(b), 1e-3) * 1.1;
    return { x: (b.x0 + b.x1 - size) / 2, y: (b.y0 + b.y1 - size) / 2, size };
  });
  const before = $derived(drawnData(outlinesOf(all).flat()));
  function show(way: CombineWay): void {
    const made = combined && combining(desk, shapes, way, combined[way]);
    if (made) passing.show(COMBINE_WORDS[way], made.recipe);
  }
  function take(way: CombineWay): void {
    passing.leave();
    if (combined) combineChosen(desk, shapes, way, combined);
  }
</script>

{#if all.length > 1}
  <div class="combine">
    <Fold
      title="Combine"
      figure={lines.length > 0 ? `${shapes.length} + ${lines.length}` : `${shapes.length}`}
      turned={(open) => (opened = open)}
    >
      {#if combined}
        {#if misses}
          <p class="quiet">
            {misses.count === 1 ? 'One place misses' : `${misses.count} places miss`} another by up to {length(
              misses.widest,
            )}: a sliver would be left.
          </p>
          <button class="plain-button" onclick={() => closeChosenMisses(desk, wanted, misses)}
            >Close them first</button
          >
        {/if}
        <ul>
          {#each waysFor(wanted) as way (way)}
            <li>
              <button
                onpointerenter={() => show(way)}
                onpointerleave={() => passing.leave()}
                onclick={() => take(way)}
              >
                <svg
                  viewBox="{box.x} {box.y} {box.size} {box.size}"
                  width="34"
                  height="34"
                  aria-hidden="true"
                >
                  <path class="was" d={before} vector-effect="non-scaling-stroke" />
                  {#each combined[way] as piece, i (i)}
                    <path
                      class="is"
                      class:split={way === 'split'}
                      d={drawnData(piece.paths)}
                      vector-effect="non-scaling-stroke"
                    />
                  {/each}
                </svg>
                {COMBINE_WORDS[way]}
              </button>
            </li>
          {/each}
        </ul>
      {:else if opened}
        <p class="quiet">Working it out …</p>
      {/if}
    </Fold>
  </div>
{/if}

<style>
  .combine {
    flex: none;
    max-height: 40%;
    padding: 6px 12px;
    overflow-y: auto;
    border-top: 1px solid var(--line);
  }
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  button {
    display: flex;
    align-items: center;
    gap: 8px;
    width: 100%;
    min-height: 38px;
    padding: 1px 6px;
    border-radius: 4px;
    text-align: start;
  }
  button:hover {
    background: var(--ledge);
  }
  svg {
    flex: none;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: #fffdf8;
  }
  .was {
    fill: none;
    stroke: #b9b2a2;
    stroke-width: 1;
  }
  .is {
    fill: #2f6b4f;
    fill-rule: evenodd;
  }
  .is.split {
    stroke: #fffdf8;
    stroke-width: 1;
  }
</style>
