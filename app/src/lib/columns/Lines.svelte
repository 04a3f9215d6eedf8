<script lang="ts">
  import { fromPx, UNIT_DIGITS, hexOf, shapeById, type Shape } from '@mirrot/core';
  import { chooseShapes } from '$lib/desk/choice';
  import { sameShapes } from '$lib/desk/linework.svelte';
  import { passingOffer } from '$lib/desk/passing';
  import { withProgress } from '$lib/desk/progress';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { widening, widenWishes, type Outlined, type Widening } from '$lib/edits/outlining';
  import { letAreasBe, pouredChosen, pourFill } from '$lib/edits/pouring';
  import Fold from '$lib/ui/Fold.svelte';
  import LengthField from '$lib/ui/LengthField.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import { pathWorker, proxy } from '$lib/workers/paths';
  import CommandButton from './CommandButton.svelte';
  import CutoutFields from './CutoutFields.svelte';

  // Lines and what they enclose: areas filled, pieces taken away, strokes as shapes, shapes grown and shrunk.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const { linework } = $derived(desk);
  const task = $derived(desk.pointing.task?.kind);
  const unit = $derived(desk.art.sheet.unit);
  const digits = $derived(UNIT_DIGITS[unit]);
  const gap = $derived(desk.habits.pourGap);

  const known = $derived(linework.known);
  const fill = $derived(pourFill(desk));
  const poured = $derived(pouredChosen(desk));

  // --- Widen -----------------------------------------------------------------------------------------------------------
  let by = $state(4);
  let joins: Widening['joins'] = $state('round');
  let place: Widening['place'] = $state('behind');
  let rings = $state(1);
  const how: Widening = $derived({ by, joins, miterLimit: 4, place, rings });
  const MOST_RINGS = 20;
  const passing = $derived(passingOffer(desk, 'widen'));
  let pointed = $state(false);
  /** What is chosen, as it is without an offer that shows it otherwise. */
  const kept = $derived(desk.choice.shapes.flatMap((id) => shapeById(desk.drawing.kept, id) ?? []));
  interface Outlining {
    readonly shapes: readonly Shape[];
    readonly how: Widening;
  }
  /** What would be widened now, and how. */
  const asked: Outlining = $derived({ shapes: kept, how });
  let outlined: (Outlining & { readonly made: readonly Outlined[] }) | null = $state.raw(null);
  const isAsked = (one: Outlining): boolean => one.how === asked.how && sameShapes(one.shapes, asked.shapes);

  async function outline(): Promise<readonly Outlined[] | null> {
    const now = asked;
    if (outlined && isAsked(outlined)) return outlined.made;
    const wishes = widenWishes(now.shapes, now.how);
    const made = await withProgress(workplace, 'Widening', pathWorker.end, (tell) =>
      pathWorker.ask((work) => work.outline(wishes, proxy(tell))),
    );
    // What was asked for may have changed meanwhile.
    if (!made || !isAsked(now)) return null;
    outlined = { ...now, made };
    return made;
  }
  async function show(): Promise<void> {
    pointed = true;
    const made = await outline();
    const change = made && widening(desk, kept, how, made);
    if (pointed && change) passing.show('Widen', change.recipe);
  }
  function leave(): void {
    pointed = false;
    passing.leave();
  }
  async function take(): Promise<void> {
    const made = await outline();
    leave();
    if (!made) return;
    const change = widening(desk, kept, how, made);
    if (!change)
      return desk.say(
        'Nothing would be left of it: it is nowhere wider than that. Nothing was changed.',
        'bad',
      );
    const level = desk.step === 'refine' ? 'path' : 'shape';
    desk.change('Widen', change.recipe, { choice: chooseShapes(change.ids, level) });
  }
  $effect(() => {
    void asked;
    return () => {
      pointed = false;
      passing.leaveAfter();
    };
  });
</script>

<div class="lines">
  <Fold
    title="Lines and areas"
    open={task === 'pour' || task === 'weed'}
    figure={task === 'pour' ? 'Pour' : task === 'weed' ? 'Weed' : ''}
  >
    <div class="buttons">
      <CommandButton {workplace} id="pour" />
      <CommandButton {workplace} id="weed" />
    </div>
    {#if task === 'pour'}
      <p class="quiet" aria-live="polite">
        <span class="chip" style:background={hexOf(fill, desk.colouring.palette)}></span>
        {known
          ? `${known.enclosed.areas.length} areas, ${known.enclosed.bridges.length} gaps bridged`
          : 'Looking for areas …'}
      </p>
      <LengthField
        {unit}
        label="gap"
        name="Gaps that are bridged"
        value={gap}
        least={0}
        most={fromPx(1000, unit)}
        change={(v) => desk.habits.set({ pourGap: v })}
      />
      <Toggle
        label="keeps up with its lines"
        on={desk.habits.pourKeeps}
        change={(on) => desk.habits.set({ pourKeeps: on })}
      />
    {/if}
    {#if poured.length > 0}
      <button class="plain-button" onclick={() => letAreasBe(desk)}>Let the area be</button>
    {/if}
    <div class="buttons">
      <CommandButton {workplace} id="stroke-to-shape" />
      <CommandButton {workplace} id="crossing-anchors" />
      <CommandButton {workplace} id="one-shape" />
      <CommandButton {workplace} id="free-paths" />
      <CommandButton {workplace} id="cut-out" />
      <CommandButton {workplace} id="release-cutout" />
      <CommandButton {workplace} id="prove-hole" />
    </div>
  </Fold>
  <CutoutFields {workplace} />
  {#if kept.length > 0}
    <Fold title="Widen" figure={`${Number(fromPx(by, unit).toFixed(digits))} ${unit}`}>
      <LengthField
        {unit}
        label="by"
        name="Widen by; below 0 it shrinks"
        value={by}
        least={fromPx(-5000, unit)}
        most={fromPx(5000, unit)}
        change={(v) => (by = v)}
      />
      <Segments
        label="Corners"
        value={joins}
        options={[
          ['round', 'round'],
          ['miter', 'pointed'],
          ['bevel', 'cut off'],
        ] as const}
        change={(v) => (joins = v)}
      />
      <Segments
        label="What it becomes"
        value={place}
        options={[
          ['behind', 'new behind'],
          ['itself', 'itself'],
        ] as const}
        change={(v) => (place = v)}
      />
      {#if place === 'behind'}
        <NumberField
          label="rings"
          name="How many rings, each by as much more"
          value={rings}
          digits={0}
          min={1}
          max={MOST_RINGS}
          change={(v) => (rings = Math.round(v))}
        />
      {/if}
      <button
        class="plain-button"
        onpointerenter={() => void show()}
        onpointerleave={leave}
        onclick={() => void take()}>Widen</button
      >
    </Fold>
  {/if}
</div>

<style>
  .lines {
    flex: none;
    max-height: 46%;
    padding: 6px 12px;
    overflow-y: auto;
    border-top: 1px solid var(--line);
  }
  .buttons {
    display: flex;
    flex-direction: column;
    gap: 2px;
  }
  .buttons :global(.ledge-button) {
    flex-direction: row;
    justify-content: flex-start;
    width: 100%;
    min-height: 28px;
  }
  p {
    display: flex;
    align-items: center;
    gap: 6px;
    margin: 0;
  }
  .chip {
    flex: none;
    width: 16px;
    height: 16px;
  }
</style>
