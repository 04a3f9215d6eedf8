<script lang="ts">
  // Long because placing, seeing and crediting a picture are one column of fields that share one gesture.
  import {
    about,
    fromPx,
    PICTURE_VIEWS,
    picturePpi,
    scaling,
    seenSize,
    setPicture,
    toPx,
    translation,
    UNIT_DIGITS,
    type PictureView,
    type PlacedPicture,
  } from '@mirrot/core';
  import { ofRatio } from '$lib/bed/mount';
  import {
    movePicture,
    pictureCentre,
    pictureCorner,
    placementNumbers,
    scalePicture,
    turnPicture,
  } from '$lib/desk/placing';
  import { sliderGesture } from '$lib/desk/slider-gesture';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Range from '$lib/ui/Range.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import Guides from './Guides.svelte';
  import { ppiVerdict } from './verdict';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const picture = $derived(desk.picture.traced);
  const sheet = $derived(desk.art.sheet);
  const unit = $derived(sheet.unit);
  const digits = $derived(UNIT_DIGITS[unit]);
  const task = $derived(desk.pointing.task);
  let from = $state<'centre' | 'corner'>('corner');

  const at = $derived(picture && (from === 'centre' ? pictureCentre(picture) : pictureCorner(picture)));
  const numbers = $derived(picture && placementNumbers(picture));
  const ppi = $derived(picture ? picturePpi(picture) : 0);
  const bounds = $derived(picture && (picture.tones.bounds ?? desk.picture.seeing.bounds(picture)));

  const moveTo = (axis: 'x' | 'y', value: number): void => {
    if (!at) return;
    const d = toPx(value, unit) - at[axis];
    movePicture(desk, 'Place the picture', axis === 'x' ? translation(d, 0) : translation(0, d));
  };
  /** Scales about the point the numbers count from, in proportion. */
  const scaleBy = (k: number): void => {
    if (at && k > 0) movePicture(desk, 'Scale the picture', about(scaling(k), at));
  };

  const slider = $derived(sliderGesture(desk));
  function show(label: string, values: Partial<Omit<PlacedPicture, 'id'>>): void {
    if (picture) slider.show(label, setPicture(picture.id, values));
  }
  const keep = (): void => slider.keep();
  const set = (label: string, values: Partial<Omit<PlacedPicture, 'id'>>): void =>
    void (picture && desk.change(label, setPicture(picture.id, values)));

  const RATIOS = [
    ['free', null],
    ['1:1', 1],
    ['4:3', 4 / 3],
    ['3:2', 3 / 2],
    ['sheet', 0],
  ] as const;
  function setRatio(value: string): void {
    if (!picture || task?.kind !== 'crop') return;
    const [, wanted] = RATIOS.find(([name]) => name === value)!;
    const ratio = wanted === 0 ? sheet.width / sheet.height : wanted;
    const { width, height } = seenSize(picture);
    desk.pointing.task = {
      ...task,
      ratio,
      box: ratio === null ? task.box : ofRatio(task.box, ratio, { x: 0, y: 0 }, width, height),
    };
  }
  const ratioName = $derived(
    task?.kind === 'crop'
      ? (RATIOS.find(
          ([, r]) => r === task.ratio || (r === 0 && task.ratio === sheet.width / sheet.height),
        )?.[0] ?? 'free')
      : 'free',
  );
  const VIEWS: Readonly<Record<PictureView, string>> = {
    plain: 'plain',
    grey: 'grey',
    tones: 'tones',
    edges: 'edges',
    lines: 'lines',
  };
</script>

{#if picture && numbers && at}
  {#if task?.kind === 'crop'}
    <section>
      <h3 class="panel-title">Crop <span>width to height</span></h3>
      <Segments
        label="Width to height of the crop"
        value={ratioName}
        options={RATIOS.map(([n]) => [n, n] as const)}
        change={setRatio}
      />
      <p class="quiet">
        {Math.round(task.box.x1 - task.box.x0)} × {Math.round(task.box.y1 - task.box.y0)} px
      </p>
    </section>
  {:else if task?.kind === 'origin'}
    <section>
      <h3 class="panel-title">Origin <span>goes to the sheet’s</span></h3>
      <Segments
        label="Where the origin goes"
        value={desk.picture.originTo}
        options={[
          ['centre', 'centre'],
          ['corner', 'top left'],
        ] as const}
        change={(v) => (desk.picture.originTo = v)}
      />
    </section>
  {/if}
  <section>
    <h3 class="panel-title">Picture <span>{picture.width} × {picture.height} px</span></h3>
    <Segments
      label="Numbers count from"
      value={from}
      options={[
        ['corner', 'its top left'],
        ['centre', 'its centre'],
      ] as const}
      change={(v) => (from = v)}
    />
    <div class="pair">
      <NumberField
        label="x"
        name="Picture x"
        value={fromPx(at.x, unit)}
        {unit}
        {digits}
        min={-1e5}
        max={1e5}
        change={(v) => moveTo('x', v)}
      />
      <NumberField
        label="y"
        name="Picture y"
        value={fromPx(at.y, unit)}
        {unit}
        {digits}
        min={-1e5}
        max={1e5}
        change={(v) => moveTo('y', v)}
      />
      <NumberField
        label="w"
        name="Width of the picture"
        value={fromPx(numbers.width, unit)}
        {unit}
        {digits}
        min={0.001}
        max={1e5}
        change={(v) => scaleBy(toPx(v, unit) / numbers.width)}
      />
      <NumberField
        label="h"
        name="Height of the picture"
        value={fromPx(numbers.height, unit)}
        {unit}
        {digits}
        min={0.001}
        max={1e5}
        change={(v) => scaleBy(toPx(v, unit) / numbers.height)}
      />
      <NumberField
        label="size"
        name="Size of the picture"
        value={numbers.percent}
        unit="%"
        digits={1}
        min={0.01}
        max={100_000}
        change={(v) => scalePicture(desk, 'Scale the picture', v / numbers.percent)}
      />
      <NumberField
        label="turn"
        name="Turn of the picture"
        value={numbers.degrees}
        unit="°"
        digits={1}
        min={-360}
        max={360}
        change={(v) => turnPicture(desk, 'Turn the picture', v - numbers.degrees)}
      />
    </div>
    <p><b>{Math.round(ppi)} ppi.</b> <span class="quiet">{ppiVerdict(ppi)}</span></p>
    <Toggle
      label="What is traced goes along"
      on={desk.picture.follow}
      change={(on) => (desk.picture.follow = on)}
    />
    {#if picture.locked}
      <p class="quiet">Locked: the hand cannot move it. Unlock it to drag, scale and turn it on the bed.</p>
    {:else}
      <p class="quiet">
        Drag to move, a corner to scale (Shift: freely), outside a corner to turn (Shift: 15° steps).
      </p>
    {/if}
  </section>
  <section>
    <h3 class="panel-title">To see by</h3>
    <Segments
      label="How the picture is seen"
      value={picture.view}
      options={PICTURE_VIEWS.map((v) => [v, VIEWS[v]] as const)}
      change={(view) => set('See the picture another way', { view })}
    />
    {#if picture.view === 'tones'}
      <Range
        label="Values"
        value={picture.tones.count}
        min={2}
        max={9}
        change={(count) => show('Tone steps', { tones: { ...picture.tones, count, bounds: null } })}
        settled={keep}
      />
      <Range
        label="Specks vanish within"
        value={picture.tones.smooth}
        min={0}
        max={20}
        text="{picture.tones.smooth} px"
        change={(smooth) => show('Tone steps', { tones: { ...picture.tones, smooth } })}
        settled={keep}
      />
      {#each bounds ?? [] as bound, i (i)}
        <Range
          label="Boundary {i + 1}"
          value={Math.round(bound)}
          max={255}
          change={(v) =>
            show('Move a boundary', {
              tones: {
                ...picture.tones,
                bounds: (bounds ?? []).map((b, k) => (k === i ? v : b)).sort((a, b) => a - b),
              },
            })}
          settled={keep}
        />
      {/each}
      {#if picture.tones.bounds}
        <button
          class="plain-button"
          onclick={() => set('Boundaries by themselves', { tones: { ...picture.tones, bounds: null } })}
          >Find the boundaries again</button
        >
      {/if}
    {/if}
    <Range label="Wash" value={picture.wash} change={(wash) => show('Wash', { wash })} settled={keep} />
    <Toggle
      label="Veil: fills tint the picture"
      on={picture.veil}
      change={(veil) => set(veil ? 'Draw the veil' : 'Lift the veil', { veil })}
    />
  </section>
  <Fold title="Where it comes from">
    {#each ['source', 'author', 'licence', 'address'] as const as key (key)}
      <label class="field">
        <span class="quiet">{key}</span>
        <input
          type="text"
          dir="auto"
          maxlength="500"
          value={picture.credit[key]}
          onchange={(e) =>
            set(`Note the ${key}`, {
              credit: { ...picture.credit, [key]: e.currentTarget.value.replace(/\p{Cc}/gu, '') },
            })}
        />
      </label>
    {/each}
  </Fold>
{:else}
  <p class="quiet">No picture lies on the sheet. Add one, paste one, or drop a file on the bed.</p>
{/if}
<Fold title="Guides and grid" figure={String(desk.art.guides.lines.length)}>
  <Guides {desk} />
</Fold>
<p class="quiet">
  Sheet {fromPx(sheet.width, unit).toFixed(digits)} × {fromPx(sheet.height, unit).toFixed(digits)}
  {unit}, {sheet.ppi} ppi for print.
</p>

<style>
  section {
    display: flex;
    flex-direction: column;
    gap: 6px;
  }
  .panel-title {
    margin: 0;
  }
</style>
