<script lang="ts">
  import { FEWEST_SIDES, fromPx, MOST_SIDES, SNAP_KINDS, type FormKind } from '@mirrot/core';
  import { endPath } from '$lib/bed/ending';
  import { FORM_WORDS, formInHand } from '$lib/bed/forms';
  import { SNAP_WORDS } from '$lib/bed/snapping';
  import { whenFetched } from '$lib/desk/when-fetched';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import LengthField from '$lib/ui/LengthField.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Range from '$lib/ui/Range.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import NextFill from '../colour/NextFill.svelte';
  import Guides from '../mount/Guides.svelte';
  import AxisFields from './AxisFields.svelte';
  import FormFields from './FormFields.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const habits = $derived(desk.habits);
  const unit = $derived(desk.art.sheet.unit);
  const layer = $derived(desk.art.layers.find((l) => l.id === desk.choosing.drawingLayer));
  const held = $derived(formInHand(desk));

  const KINDS = [
    ['path', 'path'],
    ['box', 'box'],
    ['ellipse', 'ellipse'],
    ['polygon', 'poly'],
    ['line', 'line'],
  ] as const satisfies readonly (readonly [FormKind | 'path', string])[];
  function draw(kind: FormKind | 'path'): void {
    endPath(desk);
    desk.next.form = kind === 'path' ? null : kind;
    desk.choosing.justEnded = null;
  }
  const snapping = $derived(SNAP_KINDS.filter((k) => habits.snap[k]).length);
</script>

<NextFill {desk} />
<Segments label="What is drawn" value={desk.next.form ?? 'path'} options={KINDS} change={draw} />
{#if desk.next.form}
  {#if desk.next.form === 'polygon' && !held}
    <NumberField
      label="sides"
      value={desk.next.formSides}
      digits={0}
      min={FEWEST_SIDES}
      max={MOST_SIDES}
      change={(v) => (desk.next.formSides = Math.round(v))}
    />
  {:else if desk.next.form === 'box' && !held}
    <LengthField
      {unit}
      label="round"
      name="Radius of the next box’s corners"
      value={desk.next.formRadius}
      least={0}
      change={(v) => (desk.next.formRadius = v)}
    />
  {/if}
  {#if !held}
    <p class="quiet">
      {FORM_WORDS[desk.next.form]}: drag from {desk.next.form === 'line' ? 'end to end' : 'corner to corner'}.
      Alt draws from the middle, Shift {desk.next.form === 'line' ? 'in steps of 45°' : 'makes it even'}. A
      click offers the last size.
    </p>
  {/if}
{:else if desk.live}
  <p>
    {habits.reach && desk.picture.driftSettings
      ? 'A click near the edge takes the segment offered there, a drag pulls handles of your own.'
      : 'Click for a corner, drag for a curve.'} A click on the first anchor closes.
    {#if desk.next.carryOnce}<strong>Carry is {desk.habits.carry ? 'off' : 'on'} for the next anchor.</strong
      >{/if}
  </p>
{:else}
  <p>Press on the outline to start a path: click where it has a corner, drag where it turns softly.</p>
{/if}
<FormFields {desk} />
{#if !desk.live}
  <button
    class="plain-button"
    onclick={() => whenFetched(desk, import('$lib/edits/lettering'), ({ writeLine }) => void writeLine(desk))}
    >Write a line of text</button
  >
{/if}
<p class="quiet" dir="auto">
  New paths go on {layer ? layer.name : 'no layer: all are hidden or locked'}, {habits.pen
    ? 'as strokes of the pen.'
    : 'in tracing ink only.'} Carry {desk.habits.carry
    ? 'on: a curved anchor’s leaving handle shapes the next segment.'
    : 'off: the next segment starts straight.'}
</p>
<Toggle
  label="Flowing clicks"
  on={habits.flowingClicks}
  change={(flowingClicks) => habits.set({ flowingClicks })}
/>
<Toggle
  label="Straight only"
  on={habits.straightOnly}
  change={(straightOnly) => habits.set({ straightOnly })}
/>
<Toggle label="Single pen strokes" on={habits.pen} change={(pen) => habits.set({ pen })} />
{#if habits.pen}
  <LengthField
    {unit}
    label="pen"
    name="Width of the pen"
    value={habits.penWidth}
    least={fromPx(0.1, unit)}
    most={fromPx(1000, unit)}
    change={(v) => habits.set({ penWidth: v })}
  />
  <p class="quiet">A ring warns where a stroke runs along one that is there.</p>
{/if}
<Fold title="Reach" figure={habits.reach ? `within ${habits.reachWithin} px` : 'off'}>
  <Toggle label="Reach" on={habits.reach} change={(reach) => habits.set({ reach })} />
  <Range
    label="One segment may lie off by"
    value={habits.reachWithin}
    min={0.2}
    max={4}
    step={0.1}
    text="{habits.reachWithin} px"
    change={(reachWithin) => habits.set({ reachWithin })}
  />
  <Toggle
    label="Chain beyond the tick"
    on={habits.reachChain}
    change={(reachChain) => habits.set({ reachChain })}
  />
  <Toggle label="Turns ahead" on={habits.hints} change={(hints) => habits.set({ hints })} />
  <p class="quiet">
    The next segment is offered on the picture’s edge. The tick marks how far one can hold it: a click near
    the edge takes it, a drag pulls handles of your own, C held gives a plain one. Beyond the tick a chain is
    the fewest segments that hold the edge as far as the pointer; Backspace takes back one of them at a time.
    Begun within a thin stroke a path follows its middle; S turns that.
  </p>
</Fold>
<Fold title="Snap" figure={habits.snapOn ? `to ${snapping} of ${SNAP_KINDS.length}` : 'off'}>
  <Toggle label="Snap" on={habits.snapOn} change={(snapOn) => habits.set({ snapOn })} />
  {#each SNAP_KINDS as kind (kind)}
    <Toggle
      label={SNAP_WORDS[kind]}
      on={habits.snap[kind] ?? false}
      change={(on) => habits.setSnap(kind, on)}
    />
  {/each}
  <p class="quiet">Within 8 px on screen. Hold C to draw freely, tap it to switch.</p>
</Fold>
<Fold
  title="Axis"
  figure={desk.art.axis ? desk.art.axis.kind : 'none'}
  open={desk.art.axis !== null || desk.pointing.task !== null}
>
  <AxisFields {workplace} />
</Fold>
<Fold title="Guides and grid" figure={String(desk.art.guides.lines.length)}>
  <Guides {desk} />
</Fold>
<Fold title="Tracing ink" figure="{habits.inkWidth} px">
  <Range
    label="Width on screen"
    value={habits.inkWidth}
    min={1}
    max={3}
    step={0.25}
    text="{habits.inkWidth} px"
    change={(inkWidth) => habits.set({ inkWidth })}
  />
</Fold>
