<script lang="ts">
  import {
    BLENDS,
    boxHeight,
    boxWidth,
    isEmptyBox,
    nodesOf,
    paintedBox,
    paintedNode,
    setCovering,
    shapesIn,
    fromPx,
    MOST_BLUR,
    toPx,
    type Blend,
    type Shadow,
  } from '@mirrot/core';
  import Painted from '$lib/bed/Painted.svelte';
  import { chosenNodes } from '$lib/desk/choice';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { passingOffer } from '$lib/desk/passing';
  import { sliderGesture } from '$lib/desk/slider-gesture';
  import Fold from '$lib/ui/Fold.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Range from '$lib/ui/Range.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';

  // How what is chosen, or else the layer that is drawn on, is laid over what is beneath it.
  let { desk }: { desk: Desk } = $props();

  const ids = $derived.by(() => {
    const chosen = chosenNodes(desk.choice, desk.drawing.kept);
    return chosen.length > 0 ? chosen : [desk.choosing.layer];
  });
  // What is kept, not what is shown in passing; but a slider follows its own drag.
  const nodes = $derived(nodesOf(desk.drawing.kept, ids));
  const first = $derived(nodes[0]);
  const named = $derived(nodes.length === 1 ? (first?.name ?? '') : `${nodes.length} chosen`);
  const shown = $derived(nodesOf(desk.art, ids)[0]);
  const opacity = $derived(Math.round(100 * (shown?.opacity ?? 1)));
  const unit = $derived(desk.art.sheet.unit);
  /** The slider's hundred is this share of the sheet's longer side; fine near nothing. */
  const STRONGEST = 0.05;
  const strongest = $derived(
    Math.min(MOST_BLUR, STRONGEST * Math.max(desk.art.sheet.width, desk.art.sheet.height)),
  );
  const blurOf = (at: number): number => strongest * (at / 100) ** 2;
  const blurAt = (blur: number): number => Math.min(100, Math.round(100 * Math.sqrt(blur / strongest)));
  /** A shadow just cast: down to the right, by a share of the sheet. */
  const firstShadow = (): Shadow => {
    const size = strongest / STRONGEST;
    return { x: 0.006 * size, y: 0.01 * size, blur: 0.008 * size, hex: '#2a2722', opacity: 0.35 };
  };
  const blend = $derived(first?.blend ?? 'normal');
  const alike = $derived(nodes.every((n) => n.opacity === first?.opacity && n.blend === first?.blend));

  const slider = $derived(sliderGesture(desk));
  const passing = $derived(passingOffer(desk, 'covering'));
  $effect(() => {
    void ids;
    return () => passing.leaveAfter();
  });

  const inWords = (b: Blend): string => b.replace('-', ' ');
  const blendRecipe = (to: Blend) => setCovering(ids, { blend: to });

  let opened = $state(false);
  /** Shapes that stand in a miniature at most. */
  const MOST_PICTURED = 60;
  /** What the miniatures show: the first that is chosen, over light, middle and dark. */
  const pictured = $derived.by(() => {
    if (!opened || !first || shapesIn(first).length > MOST_PICTURED) return null;
    const part = paintedNode(desk.drawing.kept, first);
    const box = part && paintedBox([part]);
    if (!box || isEmptyBox(box)) return null;
    const [w, h] = [boxWidth(box), boxHeight(box)];
    const size = Math.max(w, h, 1e-3) * 1.1;
    return { node: first, x: box.x0 - (size - w) / 2, y: box.y0 - (size - h) / 2, size };
  });
  const GROUND = ['#fbf7ee', '#9a8f7c', '#2a2722'];
  function walk(e: KeyboardEvent): void {
    const step = { ArrowDown: 1, ArrowUp: -1 }[e.key];
    if (!step) return;
    e.preventDefault();
    const all = [...(e.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('[role=radio]')];
    const at = all.indexOf(e.target as HTMLElement);
    all[(at + step + all.length) % all.length]!.focus();
  }
</script>

{#if first}
  <div class="covering">
    <Fold
      title="Opacity and blend"
      figure={alike ? `${opacity} %` : 'mixed'}
      turned={(open) => (opened = open)}
    >
      <p class="quiet of" dir="auto">of {named}</p>
      <Range
        label="Opacity"
        value={opacity}
        text="{opacity} %"
        change={(value) => slider.show('Set the opacity', setCovering(ids, { opacity: value / 100 }))}
        settled={() => slider.keep()}
      />
      <Range
        label="Blur"
        value={blurAt(shown?.blur ?? 0)}
        text={shown?.blur ? `${Number(fromPx(shown.blur, unit).toFixed(2))} ${unit}` : 'sharp'}
        change={(value) => slider.show('Set the blur', setCovering(ids, { blur: blurOf(value) }))}
        settled={() => slider.keep()}
      />
      <Toggle
        label="Soft shadow"
        on={first.shadow !== undefined}
        change={(on) => desk.change('Soft shadow', setCovering(ids, { shadow: on ? firstShadow() : null }))}
      />
      {#if first.shadow}
        {@const shadow = first.shadow}
        {@const cast = (values: Partial<Shadow>) =>
          void desk.change('Soft shadow', setCovering(ids, { shadow: { ...shadow, ...values } }))}
        <div class="shadow">
          <NumberField
            label="right"
            name="Shadow to the right"
            value={fromPx(shadow.x, unit)}
            {unit}
            min={-1e4}
            max={1e4}
            change={(v) => cast({ x: toPx(v, unit) })}
          />
          <NumberField
            label="down"
            name="Shadow down"
            value={fromPx(shadow.y, unit)}
            {unit}
            min={-1e4}
            max={1e4}
            change={(v) => cast({ y: toPx(v, unit) })}
          />
          <NumberField
            label="soft"
            name="Softness of the shadow"
            value={fromPx(shadow.blur, unit)}
            {unit}
            min={0}
            max={fromPx(MOST_BLUR, unit)}
            change={(v) => cast({ blur: Math.min(MOST_BLUR, toPx(v, unit)) })}
          />
          <NumberField
            label="opacity"
            name="Opacity of the shadow"
            value={100 * shadow.opacity}
            unit="%"
            digits={0}
            min={0}
            max={100}
            change={(v) => cast({ opacity: v / 100 })}
          />
        </div>
        <label class="field">
          <span class="quiet">shadow</span>
          <input
            type="color"
            value={shadow.hex}
            aria-label="Colour of the shadow"
            onchange={(e) => cast({ hex: e.currentTarget.value })}
          />
        </label>
      {/if}
      <!-- svelte-ignore a11y_interactive_supports_focus -->
      <div role="radiogroup" aria-label="Blend" class="blends" onkeydown={walk}>
        {#each BLENDS as b (b)}
          <button
            role="radio"
            aria-checked={blend === b}
            tabindex={blend === b ? 0 : -1}
            onpointerenter={() => blend !== b && passing.show(`Blend by ${inWords(b)}`, blendRecipe(b))}
            onpointerleave={() => passing.leave()}
            onclick={() => {
              passing.leave();
              desk.change(`Blend by ${inWords(b)}`, blendRecipe(b));
            }}
          >
            {#if pictured}
              {@const { node, x, y, size } = pictured}
              {@const part = paintedNode(desk.drawing.kept, { ...node, blend: b })}
              <svg viewBox="{x} {y} {size} {size}" width="26" height="26" aria-hidden="true">
                {#each GROUND as fill, i (fill)}
                  <rect x={x + (i * size) / 3} {y} width={size / 3} height={size} {fill} />
                {/each}
                <Painted parts={part ? [part] : []} place="blend-{b}" seeing={desk.picture.seeing} />
              </svg>
            {/if}
            {inWords(b)}
          </button>
        {/each}
      </div>
    </Fold>
  </div>
{/if}

<style>
  .covering {
    flex: none;
    max-height: 46%;
    padding: 6px 12px;
    overflow-y: auto;
    border-top: 1px solid var(--line);
  }
  .of {
    overflow: hidden;
    margin-bottom: 4px;
    font-size: 12.5px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  /* One beneath the other: side by side their numbers would not be seen. */
  .shadow {
    display: flex;
    flex-direction: column;
    gap: 6px;
    margin-bottom: 6px;
  }
  .blends {
    display: flex;
    flex-direction: column;
    margin-top: 6px;
  }
  button {
    display: flex;
    align-items: center;
    gap: 8px;
    min-height: 30px;
    padding: 1px 6px;
    border-left: 3px solid transparent;
    text-align: start;
  }
  button:hover {
    background: var(--ledge);
  }
  button[aria-checked='true'] {
    border-left-color: var(--carrot);
    background: var(--carrot-wash);
  }
  svg {
    flex: none;
    border-radius: 4px;
    isolation: isolate;
  }
</style>
