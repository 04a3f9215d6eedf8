<script lang="ts">
  import type { Desk } from '$lib/desk/desk.svelte';
  import { entryOnBed, whiskersOf } from './whiskers';

  // Drift of what is chosen, as whiskers on the line.
  let { desk }: { desk: Desk } = $props();

  const shown = $derived(
    desk.step === 'refine' && desk.seen.ink && desk.measuring && desk.habits.whiskers && !desk.offer
      ? desk.choice.shapes.flatMap((id) => desk.drifts.of(id) ?? [])
      : [],
  );
  const whiskers = $derived(
    shown.flatMap((s) =>
      s.parts.map((part) => ({
        key: part.path.id,
        ...whiskersOf(part, s.step, desk.view, desk.habits.driftWithin, desk.bed.width, desk.bed.height),
      })),
    ),
  );
  const pointed = $derived.by(() => {
    const { driftAt } = desk;
    const shape = driftAt && desk.drifts.of(driftAt.shape);
    const part = driftAt && shape ? shape.parts[driftAt.part] : null;
    if (!driftAt || !shape || !part || driftAt.entry >= part.drift.value.length) return null;
    return entryOnBed(part, shape.step, driftAt.entry, desk.view);
  });
</script>

<svg class="whiskers" aria-hidden="true">
  {#each whiskers as w (w.key)}
    <path class="halo" d={w.beyond} />
    <path class="none" d={w.none} />
    <path class="within" d={w.within} />
    <path class="beyond" d={w.beyond} />
  {/each}
  {#if pointed}
    <circle class="halo" cx={pointed.at.x} cy={pointed.at.y} r="10" />
    <circle class="pointed" cx={pointed.at.x} cy={pointed.at.y} r="10" />
  {/if}
</svg>

<style>
  .whiskers {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    fill: none;
    stroke-linecap: round;
    pointer-events: none;
  }
  .halo {
    stroke: var(--halo);
    stroke-width: 3;
    stroke-opacity: 0.8;
  }
  .within {
    stroke: var(--plum);
    stroke-width: 1;
  }
  .beyond {
    stroke: var(--brick);
    stroke-width: 1.4;
  }
  .none {
    stroke: var(--brick);
    stroke-width: 3;
  }
  .pointed {
    stroke: var(--plum);
    stroke-width: 2;
  }
</style>
