<script lang="ts">
  import { apply, hexOf, type Point } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { pointText, toBed } from '$lib/desk/view';
  import { stopAt } from '$lib/edits/painting';
  import { gradientString, stringPartAt, TAG_HALF_PX } from './gradient-string';

  // The gradient's string with its tags, and for a radial one the ring.
  let { desk, pointer }: { desk: Desk; pointer: Point | null } = $props();
  const string = $derived(gradientString(desk));
  const lit = $derived(string && pointer && !desk.pointing.pressing ? stringPartAt(string, pointer) : null);
  const chosen = $derived(string ? stopAt(desk, string.gradient) : 0);
  /** Points of the ring's outline. */
  const ROUND = 72;
  const ring = $derived.by(() => {
    if (!string?.side) return null;
    const points = Array.from({ length: ROUND }, (_, i) => {
      const angle = (2 * Math.PI * i) / ROUND;
      return toBed(
        desk.looking.view,
        apply(string.gradient.placement, { x: Math.cos(angle), y: Math.sin(angle) }),
      );
    });
    return `M${points.map(pointText).join('L')}Z`;
  });
  /** A bar across the string at one of its ends. */
  const bar = (at: Point, other: Point, half: number): string => {
    const long = Math.hypot(other.x - at.x, other.y - at.y) || 1;
    const [x, y] = [(-(other.y - at.y) / long) * half, ((other.x - at.x) / long) * half];
    return `M${pointText({ x: at.x - x, y: at.y - y })}L${pointText({ x: at.x + x, y: at.y + y })}`;
  };
  const line = $derived(string ? `M${pointText(string.start)}L${pointText(string.end)}` : '');
</script>

{#if string}
  <svg class="gradient" aria-hidden="true">
    <defs>
      <pattern id="clear-tag" width="8" height="8" patternUnits="userSpaceOnUse">
        <rect width="8" height="8" fill="#fffdf6" />
        <path d="M0 0h4v4h-4zM4 4h4v4h-4z" fill="#b9b2a2" />
      </pattern>
    </defs>
    {#if ring}
      <path class="halo thin" d={ring} />
      <path class="ring" d={ring} />
    {/if}
    <path class="halo" d={line} />
    <path class="string" class:lit={lit?.kind === 'string'} d={line} />
    {#each [['start', string.start, string.end], ['end', string.end, string.start]] as const as [part, at, other] (part)}
      {@const d = bar(at, other, lit?.kind === part ? 9 : 7)}
      <path class="halo" {d} />
      <path class="bar" {d} />
    {/each}
    {#if string.side}
      {@const d = bar(string.side, string.start, lit?.kind === 'side' ? 7 : 5)}
      <path class="halo" {d} />
      <path class="bar" {d} />
    {/if}
    {#each string.tags as { at, knot }, i (i)}
      {@const stop = string.gradient.stops[i]!}
      {@const half = TAG_HALF_PX * (lit?.kind === 'tag' && lit.index === i ? 1.25 : 1)}
      <path class="halo thin" d="M{pointText(knot)}L{pointText(at)}" />
      <path class="thread" d="M{pointText(knot)}L{pointText(at)}" />
      <g transform="translate({at.x} {at.y})">
        <rect class="paper" x={-half - 2} y={-half - 2} width={2 * half + 4} height={2 * half + 4} rx="5" />
        {#if stop.opacity < 1}
          <rect x={-half} y={-half} width={2 * half} height={2 * half} rx="3" fill="url(#clear-tag)" />
        {/if}
        <rect
          class="tag"
          class:chosen={i === chosen}
          x={-half}
          y={-half}
          width={2 * half}
          height={2 * half}
          rx="3"
          fill={hexOf(stop.colour, desk.colouring.palette)}
          fill-opacity={stop.opacity}
        />
      </g>
    {/each}
  </svg>
{/if}

<style>
  .gradient {
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
    stroke-width: 4;
  }
  .thin {
    stroke-width: 3;
  }
  .string {
    stroke: var(--text);
    stroke-width: 1.25;
  }
  .string.lit {
    stroke: var(--carrot);
    stroke-width: 2;
  }
  .ring,
  .thread {
    stroke: var(--text);
    stroke-width: 1;
  }
  .bar {
    stroke: var(--text);
    stroke-width: 2;
  }
  .paper {
    fill: var(--halo);
  }
  .tag {
    stroke: var(--text);
    stroke-width: 1;
  }
  .tag.chosen {
    stroke: var(--carrot);
    stroke-width: 2.5;
  }
</style>
