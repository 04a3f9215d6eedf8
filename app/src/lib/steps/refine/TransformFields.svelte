<script lang="ts">
  import {
    about,
    boxHeight,
    boxOfPoints,
    boxWidth,
    mapChosen,
    meanScale,
    rotation,
    scaling,
    setPath,
    scaleStroke,
    styleShapes,
    together,
    transformAnchors,
    translation,
    type Affine,
    type Point,
    toRadians,
  } from '@mirrot/core';
  import { byPath } from '$lib/edits/shaping';
  import type { Desk } from '$lib/desk/desk.svelte';
  import LengthField from '$lib/ui/LengthField.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';

  // Chosen shapes, or chosen anchors, moved, sized and turned by numbers, about one of nine points of their box or a picked one.
  let { desk }: { desk: Desk } = $props();
  const unit = $derived(desk.art.sheet.unit);
  const anchors = $derived(desk.choice.level === 'path' ? desk.choice.anchors : []);
  const box = $derived(
    anchors.length > 0
      ? boxOfPoints(byPath(desk, anchors).flatMap((g) => g.indices.map((i) => g.path.anchors[i]!)))
      : desk.choosing.box,
  );
  const what = $derived(anchors.length > 0 ? 'Anchors' : 'Shape');
  let across = $state(0.5);
  let down = $state(0.5);
  let proportion = $state(false);
  let weight = $state(false);

  const at = $derived<Point | null>(
    desk.choosing.turnCentre ??
      (box && { x: box.x0 + across * boxWidth(box), y: box.y0 + down * boxHeight(box) }),
  );
  const WORDS = [
    ['top left', 'top', 'top right'],
    ['left', 'middle', 'right'],
    ['bottom left', 'bottom', 'bottom right'],
  ] as const;

  function map(label: string, by: Affine): void {
    if (anchors.length > 0) {
      const groups = byPath(desk, anchors);
      desk.change(
        label,
        together(...groups.map((g) => setPath(g.shape, transformAnchors(g.path, g.indices, by)))),
        { choice: desk.choice },
      );
      return;
    }
    const shapes = desk.chosenShapes;
    const k = meanScale(by);
    desk.change(
      label,
      together(
        mapChosen(shapes, desk.choice.nodes, by),
        ...shapes.map((s) =>
          weight && s.stroke ? styleShapes([s.id], { stroke: scaleStroke(s.stroke, k) }) : () => {},
        ),
      ),
      { choice: desk.choice },
    );
  }
  function size(axis: 'x' | 'y', to: number): void {
    if (!box || !at) return;
    const now = axis === 'x' ? boxWidth(box) : boxHeight(box);
    if (!(now > 0))
      return desk.say(
        'What has no size that way cannot be made larger that way. Nothing was changed.',
        'bad',
      );
    const k = to / now;
    map('Size by numbers', about(proportion ? scaling(k) : axis === 'x' ? scaling(k, 1) : scaling(1, k), at));
  }
</script>

{#if box && at}
  <div class="where">
    <div class="nine" role="radiogroup" aria-label="Point the numbers count from">
      {#each WORDS as row, r (r)}
        {#each row as word, c (word)}
          <label data-tip={word}>
            <input
              type="radio"
              name="point-of-box"
              aria-label={word}
              checked={!desk.choosing.turnCentre && across === c / 2 && down === r / 2}
              onchange={() => {
                desk.choosing.turnCentre = null;
                across = c / 2;
                down = r / 2;
              }}
            />
          </label>
        {/each}
      {/each}
    </div>
    <div class="lines">
      {#each ['x', 'y'] as const as axis (axis)}
        <LengthField
          {unit}
          label={axis}
          name="{what} {axis}"
          value={at[axis]}
          change={(v) =>
            map('Place by numbers', axis === 'x' ? translation(v - at.x, 0) : translation(0, v - at.y))}
        />
      {/each}
      <LengthField
        {unit}
        label="w"
        name="{what} width"
        value={boxWidth(box)}
        least={0.001}
        change={(v) => size('x', v)}
      />
      <LengthField
        {unit}
        label="h"
        name="{what} height"
        value={boxHeight(box)}
        least={0.001}
        change={(v) => size('y', v)}
      />
    </div>
  </div>
  <NumberField
    label="turn by"
    value={0}
    unit="°"
    digits={2}
    min={-360}
    max={360}
    change={(v) => map('Turn by numbers', about(rotation(toRadians(v)), at))}
  />
  <button
    class="plain-button"
    aria-pressed={desk.pointing.task?.kind === 'about'}
    onclick={() => (desk.pointing.task = desk.pointing.task?.kind === 'about' ? null : { kind: 'about' })}
    >{desk.choosing.turnCentre ? 'Pick another point' : 'Pick a point to turn about'}</button
  >
  <Toggle label="In proportion" on={proportion} change={(on) => (proportion = on)} />
  {#if anchors.length === 0}
    <Toggle label="Line weight goes along" on={weight} change={(on) => (weight = on)} />
  {/if}
{/if}

<style>
  .where {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 8px;
    align-items: center;
  }
  .nine {
    display: grid;
    grid-template-columns: repeat(3, 26px);
    gap: 4px 0;
  }
  .nine label {
    display: grid;
    place-items: center;
    height: 24px;
  }
  .nine input {
    width: 14px;
    height: 14px;
    margin: 0;
    accent-color: var(--carrot);
  }
  .lines {
    display: grid;
    gap: 4px;
  }
</style>
