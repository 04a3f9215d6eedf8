<script lang="ts">
  import {
    anchorCount,
    fromPx,
    setAnchorKind,
    setEqualLengths,
    setPath,
    withAnchor,
    type AnchorKind,
  } from '@mirrot/core';
  import { isOffered } from '$lib/desk/command';
  import { findPath } from '$lib/desk/choice';
  import { offersThinning } from '$lib/edits/thinning';
  import { command } from '../commands';
  import { protectChosen } from '$lib/edits/anchors';
  import { canMakeSymmetric } from '$lib/edits/axes';
  import { thinChosen } from './by-the-edge';
  import DriftFields from './DriftFields.svelte';
  import EconomyFields from './EconomyFields.svelte';
  import EvenFields from './EvenFields.svelte';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import LengthField from '$lib/ui/LengthField.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Range from '$lib/ui/Range.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import FormFields from '../block-in/FormFields.svelte';
  import HandleFields from './HandleFields.svelte';
  import TransformFields from './TransformFields.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const unit = $derived(desk.art.sheet.unit);

  const ref = $derived(desk.choice.anchors.length === 1 ? desk.choice.anchors[0]! : null);
  const path = $derived(ref && findPath(desk.shapeOf(ref.shape), ref.path));
  const anchor = $derived(path && ref ? (path.anchors[ref.index] ?? null) : null);
  const shape = $derived(desk.chosenShapes.length === 1 ? desk.chosenShapes[0]! : null);

  /** Buttons of the panel: what can be done now with what is chosen. */
  const BUTTONS = [
    'straighten', 'close-open', 'cut-here', 'start-here', 'merge-anchors', 'join-straight', 'join-middle', 'align-level', 'align-upright',
    'even-across', 'even-down', 'protect', 'choose-between', 'add-three', 'add-extremes', 'add-inflections', 'reverse', 'measure-weight',
  ]; // prettier-ignore
  const offered = $derived(
    desk.choice.level === 'path'
      ? BUTTONS.map(command).filter((c) => isOffered(c, workplace) && !(c.id === 'protect' && anchor))
      : [],
  );

  function setKind(kind: AnchorKind): void {
    if (ref && path) desk.change(`Make ${kind}`, setPath(ref.shape, setAnchorKind(path, ref.index, kind)));
  }
  function setEqual(on: boolean): void {
    if (!ref || !path) return;
    desk.change(
      on ? 'Equal lengths' : 'Lengths apart',
      setPath(ref.shape, setEqualLengths(path, ref.index, on)),
      {
        choice: desk.choice,
      },
    );
  }
  function place(axis: 'x' | 'y', value: number): void {
    if (!ref || !path || !anchor) return;
    desk.change(
      'Place the anchor',
      setPath(ref.shape, withAnchor(path, ref.index, { ...anchor, [axis]: value })),
    );
  }
</script>

<HandleFields {desk} />
{#if anchor && ref && path}
  <h3 class="panel-title">Anchor {ref.index + 1} of {path.anchors.length}</h3>
  <div class="pair">
    <LengthField {unit} label="x" value={anchor.x} change={(v) => place('x', v)} />
    <LengthField {unit} label="y" value={anchor.y} change={(v) => place('y', v)} />
  </div>
  <Segments
    label="Kind of anchor"
    value={anchor.kind}
    options={[
      ['corner', 'corner'],
      ['smooth', 'smooth'],
      ['flowing', 'flowing'],
    ] as const}
    change={(kind) => kind !== anchor.kind && setKind(kind)}
  />
  {#if anchor.kind === 'smooth'}
    <Toggle label="Equal lengths" on={anchor.equal ?? false} change={setEqual} />
  {/if}
  <Toggle label="Protected from thinning" on={anchor.protected ?? false} change={() => protectChosen(desk)} />
  {#if anchor.shared}
    <p class="quiet">Shared with a neighbour: both move together until they are parted.</p>
    <button class="plain-button" onclick={() => command('part-anchors').run(workplace)}
      >Part from the neighbour</button
    >
  {/if}
{:else if desk.choice.anchors.length > 1}
  <h3 class="panel-title">{desk.choice.anchors.length} anchors</h3>
{:else if shape?.paths[0]?.form}
  <FormFields {desk} />
{:else if shape}
  <h3 class="panel-title"><b dir="auto">{shape.name}</b> <span>{anchorCount(shape)} anchors</span></h3>
  <p class="quiet">
    {shape.paths.length === 1
      ? shape.paths[0]!.closed
        ? 'One closed outline.'
        : 'One open path.'
      : `${shape.paths.length} outlines: the inner ones are holes.`}
  </p>
{:else if desk.choice.shapes.length > 1}
  <h3 class="panel-title">{desk.choice.shapes.length} shapes</h3>
  <p class="quiet">Drag them, scale by a corner, turn outside a corner. Arrows nudge.</p>
{:else}
  <p class="quiet">
    Nothing chosen. Click an outline to show its anchors, the inside of a shape for its box, or drag a box.
  </p>
{/if}

<DriftFields {workplace} />
<EconomyFields {workplace} />
{#if desk.choice.level === 'path' && desk.choice.shapes.length > 0}
  <Toggle
    label="Handles keep their angle"
    on={desk.habits.angleLocked}
    change={(angleLocked) => desk.habits.set({ angleLocked })}
  />
{/if}
{#if desk.choice.anchors.length > 1 || (desk.choice.level === 'shape' && desk.choice.shapes.length > 0)}
  <TransformFields {desk} />
{/if}
{#if offered.length > 0}
  <div class="button-row" role="group" aria-label="What can be done with what is chosen">
    {#each offered as c (c.id)}
      <button class="plain-button" onclick={() => c.run(workplace)}>{c.title}</button>
    {/each}
  </div>
{/if}
{#if canMakeSymmetric(desk)}<EvenFields {workplace} />{/if}
<Toggle label="Haze" on={desk.habits.haze} change={(on) => desk.habits.set({ haze: on })} />
<Toggle label="Curvature comb" on={desk.habits.comb} change={(on) => desk.habits.set({ comb: on })} />
<Toggle
  label="True stroke"
  on={desk.habits.trueStroke}
  change={(on) => desk.habits.set({ trueStroke: on })}
/>
{#if desk.choice.shapes.length > 0}
  <Range
    label="Thin out within"
    value={desk.habits.thinWithin}
    min={0.1}
    max={8}
    step={0.1}
    text="{desk.habits.thinWithin.toFixed(1)} px, {fromPx(
      desk.habits.thinWithin / desk.looking.view.scale,
      unit,
    ).toFixed(3)} {unit}"
    change={(thinWithin) => {
      desk.habits.set({ thinWithin });
      if (offersThinning(desk)) void thinChosen(workplace);
    }}
  />
  <Range
    label="Flow all keeps corners over"
    value={desk.habits.sharpest}
    min={5}
    max={175}
    text="{desk.habits.sharpest}°"
    change={(v) => desk.habits.set({ sharpest: v })}
  />
{/if}

<style>
  b {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
</style>
