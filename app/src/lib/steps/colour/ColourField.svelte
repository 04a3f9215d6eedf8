<script lang="ts">
  import {
    contrastRatio,
    DEFICIENCIES,
    formatHex,
    inGamut,
    MOST_CHROMA,
    MirrotError,
    mostChroma,
    oklabToOklch,
    oklabToRgb,
    oklchToOklab,
    parseHex,
    readColour,
    readCssColour,
    rgbToOklab,
    seenWith,
    type Oklch,
  } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { sliderGesture } from '$lib/desk/slider-gesture';
  import { applyColour, colourRecipe, currentHex, remember } from '$lib/edits/painting';
  import Fold from '$lib/ui/Fold.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Range from '$lib/ui/Range.svelte';

  // The colour of what receives colours: written, by figures, by sliders that show what sRGB holds.
  let { desk }: { desk: Desk } = $props();
  const hex = $derived(currentHex(desk));
  /** Sliders of what has no colour yet begin here. */
  const UNSET = '#8a8272';
  const lch: Oklch = $derived(oklabToOklch(rgbToOklab(parseHex(hex ?? UNSET))));
  // What is being dragged: the colour written down is clamped to sRGB, the sliders are not.
  let dragged: Oklch | null = $state.raw(null);
  const shown = $derived(dragged ?? lch);
  const hexOf = (c: Oklch): string => formatHex(oklabToRgb(oklchToOklab(c)));

  /** Places along a slider's track. */
  const PLACES = 24;
  /** A track in the colours it would give; what sRGB does not hold is bare, with a line at its border. */
  function track(at: (t: number) => Oklch): string {
    const parts = Array.from({ length: PLACES }, (_, i) => {
      const colour = at((i + 0.5) / PLACES);
      const [from, to] = [(100 * i) / PLACES, (100 * (i + 1)) / PLACES];
      return `${inGamut(colour) ? hexOf(colour) : 'transparent'} ${from}% ${to}%`;
    });
    const bare = 'repeating-linear-gradient(135deg, var(--line) 0 1.5px, transparent 1.5px 5px)';
    return `linear-gradient(to right, ${parts.join(', ')}), ${bare}`;
  }

  const slider = $derived(sliderGesture(desk));
  function show(c: Oklch): void {
    dragged = c;
    const colour = { hex: hexOf(c) };
    const { receiving } = desk.colouring;
    if (desk.choosing.receivers.length > 0)
      return slider.show(`Colour the ${receiving}`, colourRecipe(desk, colour));
    if (receiving === 'fill') desk.colouring.nextFill = colour;
  }
  function settle(): void {
    slider.keep();
    if (dragged) remember(desk, { hex: hexOf(dragged) });
    dragged = null;
  }

  let wrong: string | null = $state(null);
  function typed(text: string): void {
    try {
      applyColour(desk, { hex: readColour(text) });
      wrong = null;
    } catch (error) {
      wrong = `${error instanceof MirrotError ? error.message : String(error)} Nothing was changed.`;
    }
  }
  const bytes = $derived(parseHex(hex ?? UNSET).map((v) => Math.round(255 * v)));
  const setByte = (channel: number, value: number): void =>
    applyColour(desk, { hex: formatHex(bytes.map((v, i) => (i === channel ? value : v) / 255) as [number, number, number]) }); // prettier-ignore

  const most = $derived(mostChroma(shown[0], shown[2]));
  const recent = $derived(desk.habits.recentColours);

  // Contrast to a second colour.
  let second = $state('#FFFFFF');
  const other = $derived(readCssColour(second)?.hex ?? null);
  const ratio = $derived(hex && other ? contrastRatio(hex, other) : null);
  /** What a ratio is enough for. Source: WCAG 2.2, success criteria 1.4.3, 1.4.6 and 1.4.11. */
  const verdict = (r: number): string =>
    r >= 7 ? 'any text, AAA' : r >= 4.5 ? 'any text, AA' : r >= 3 ? 'large text and marks' : 'too little for text or marks'; // prettier-ignore
  const eyes = $derived(
    [hex, other].map((one) => one && DEFICIENCIES.map((d) => formatHex(seenWith(d, parseHex(one))))),
  );
</script>

<label class="field written">
  <i class:clear-ground={!hex} style:background={hex}></i>
  <span class="quiet">hex or word</span>
  <input
    type="text"
    spellcheck="false"
    autocomplete="off"
    value={hex?.toUpperCase() ?? ''}
    placeholder="none"
    aria-invalid={wrong !== null}
    onchange={(e) => typed(e.currentTarget.value)}
    onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
  />
</label>
{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
<div class="lch" role="group" aria-label="Colour field">
  <Range
    label="Lightness"
    value={Math.round(shown[0] * 100)}
    track={track((t) => [t, shown[1], shown[2]])}
    change={(v) => show([v / 100, shown[1], shown[2]])}
    settled={settle}
  />
  <Range
    label="Chroma"
    value={Math.round(shown[1] * 1000)}
    max={1000 * MOST_CHROMA}
    text={shown[1] > most + 0.001
      ? `${shown[1].toFixed(2)}, ${most.toFixed(2)} is held`
      : shown[1].toFixed(2)}
    track={track((t) => [shown[0], t * MOST_CHROMA, shown[2]])}
    change={(v) => show([shown[0], v / 1000, shown[2]])}
    settled={settle}
  />
  <Range
    label="Hue"
    value={Math.round(shown[2])}
    max={360}
    text="{Math.round(shown[2])}°"
    track={track((t) => [shown[0], Math.max(shown[1], 0.03), t * 360])}
    change={(v) => show([shown[0], shown[1], v])}
    settled={settle}
  />
</div>
{#if recent.length > 0}
  <div class="recent" role="group" aria-label="Recent colours">
    {#each recent as one (one)}
      <button
        style:background={one}
        aria-label="Recent colour {one.toUpperCase()}"
        data-tip={one.toUpperCase()}
        onclick={() => applyColour(desk, { hex: one })}
      ></button>
    {/each}
  </div>
{/if}
<Fold title="Figures and contrast" figure={ratio ? `${ratio.toFixed(2)} : 1` : ''}>
  <div class="rgb">
    {#each ['R', 'G', 'B'] as channel, i (channel)}
      <NumberField
        label={channel}
        name={['Red', 'Green', 'Blue'][i]!}
        value={bytes[i]!}
        digits={0}
        min={0}
        max={255}
        change={(v) => setByte(i, Math.round(v))}
      />
    {/each}
  </div>
  <label class="field">
    <i style:background={other ?? 'none'} class:clear-ground={!other}></i>
    <span class="quiet">against</span>
    <input
      type="text"
      spellcheck="false"
      autocomplete="off"
      bind:value={second}
      aria-label="Second colour"
      list="second-colours"
    />
  </label>
  <datalist id="second-colours">
    {#each desk.art.chips as chip (chip.id)}<option value={chip.hex.toUpperCase()}>{chip.name}</option>{/each}
    <option value="#FFFFFF">white</option>
    <option value="#000000">black</option>
  </datalist>
  {#if ratio}
    <p class="quiet contrast">
      <span style:background={hex} style:color={other}>Aa</span>
      {ratio.toFixed(2)} : 1, {verdict(ratio)}
    </p>
  {/if}
  {#if hex}
    <dl aria-label="As eyes with a colour deficiency see them">
      {#each DEFICIENCIES as deficiency, i (deficiency)}
        <dt>{deficiency}</dt>
        <dd>
          {#each eyes as seen, k (k)}{#if seen}<i style:background={seen[i]}></i>{/if}{/each}
        </dd>
      {/each}
    </dl>
  {/if}
</Fold>

<style>
  i {
    flex: none;
    display: inline-block;
    width: 18px;
    height: 18px;
    border: 1px solid var(--line);
    border-radius: 5px;
  }
  .wrong {
    font-size: 12.5px;
    color: var(--brick);
  }
  .recent {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
  }
  .recent button {
    width: 24px;
    height: 24px;
    border: 1px solid var(--line);
    border-radius: 50%;
  }
  .rgb {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 4px;
  }
  .contrast {
    display: flex;
    align-items: center;
    gap: 8px;
    font-size: 12.5px;
  }
  .contrast span {
    padding: 2px 8px;
    border: 1px solid var(--line);
    border-radius: 6px;
    font-weight: 600;
  }
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    align-items: center;
    gap: 3px;
    margin: 0;
    font-size: 12.5px;
    color: var(--quiet);
  }
  dd {
    display: flex;
    margin: 0;
  }
  dd i + i {
    margin-left: -1px;
  }
</style>
