<script lang="ts">
  import { formatHex, type Rgb } from '@mirrot/core';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Range from '$lib/ui/Range.svelte';
  import { toning } from './commands';

  // What the one shape shows of the picture that Body tone was asked of: what of it is looked at, and its other tones.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const known = $derived(desk.colouring.tone);
  const shape = $derived(known?.shape ?? null);
  const tone = $derived(known?.tone ?? null);
  const offered = $derived(desk.offer?.from === 'body-tone');
  const highest = $derived(Math.max(1, ...(tone?.histogram ?? [])));
  const trim = $derived(Math.round(desk.habits.toneTrim * 100));

  const others = $derived.by(() => {
    if (!tone) return [];
    const named: { what: string; colour: Rgb; share?: number }[] = [{ what: 'Body tone', colour: tone.body }];
    if (tone.light) named.push({ what: 'Light tone', colour: tone.light });
    if (tone.shade) named.push({ what: 'Shade tone', colour: tone.shade });
    // An outline that takes in its neighbour shows several colours: each is offered.
    if (tone.groups.length > 1)
      tone.groups.forEach(({ colour, share }, i) => named.push({ what: `Colour ${i + 1}`, colour, share }));
    return named;
  });
</script>

{#if tone && shape}
  <section aria-label="Tones">
    <h3 class="panel-title">Tones <span dir="auto">{shape.name}</span></h3>
    <svg
      viewBox="0 0 128 34"
      preserveAspectRatio="none"
      role="img"
      aria-label="Lightness of what it shows: dark at the left, light at the right; what is left out is pale"
    >
      {#each tone.histogram as count, i (i)}
        {@const middle = (i + 0.5) / tone.histogram.length}
        <rect
          class:out={middle < tone.between[0] - 0.5 / tone.histogram.length ||
            middle > tone.between[1] + 0.5 / tone.histogram.length}
          x={4 * i + 0.4}
          y={32 - (30 * count) / highest}
          width="3.2"
          height={(30 * count) / highest + 1}
        />
      {/each}
    </svg>
    <Range
      label="Left out at either end"
      value={trim}
      max={45}
      text="{trim} %"
      change={(v) => desk.habits.set({ toneTrim: v / 100 })}
      settled={() => offered && toning(workplace, ({ toneChosen }) => toneChosen(workplace))}
    />
    <ul>
      {#each others as { what, colour, share } (what)}
        {@const hex = formatHex(colour)}
        <li>
          <button
            class="apply"
            onclick={() => toning(workplace, ({ offerTone }) => offerTone(desk, shape, hex, what))}
          >
            <i style:background={hex}></i>
            <span>{what}</span>
            <span class="quiet"
              >{share === undefined ? hex.toUpperCase() : `${Math.round(share * 100)} %`}</span
            >
          </button>
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  svg {
    width: 100%;
    height: 34px;
    margin-bottom: 4px;
  }
  rect {
    fill: var(--leaf);
  }
  .out {
    fill: var(--line);
  }
  ul {
    margin: 4px 0 0;
    padding: 0;
    list-style: none;
  }
  .apply {
    display: flex;
    align-items: center;
    gap: 8px;
    width: 100%;
    height: 30px;
    padding: 0 4px;
    border-radius: 4px;
    text-align: start;
  }
  .apply:hover {
    background: var(--ledge);
  }
  .apply i {
    width: 20px;
    height: 20px;
    border: 1px solid var(--line);
    border-radius: 5px;
  }
  .apply span:nth-child(2) {
    flex: 1;
  }
</style>
