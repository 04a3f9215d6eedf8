<script lang="ts">
  import type { Desk } from '$lib/desk/desk.svelte';
  import { toBed } from '$lib/desk/view';

  // What the proof found, stuck in at its place like plant labels.
  let { desk }: { desk: Desk } = $props();
  /** Labels drawn at once: more would hide what they stand in. */
  const MOST = 200;
  /** Size of a label and of its point, screen pixels. */
  const [WIDE, HIGH, POINT] = [20, 16, 10];
  /** Room beyond the bed in which a label still reaches in. */
  const ROOM = 30;
  const labels = $derived.by(() => {
    const { width, height } = desk.looking.bed;
    return (desk.proving.found ?? [])
      .map((finding, i) => ({
        finding,
        number: i + 1,
        at: finding.at && toBed(desk.looking.view, finding.at),
      }))
      .filter(
        ({ at }) => at && at.x > -ROOM && at.y > -ROOM && at.x < width + ROOM && at.y < height + 2 * ROOM,
      )
      .slice(0, MOST);
  });
</script>

<svg class="labels" aria-hidden="true">
  {#each labels as { finding, number, at } (finding.key)}
    <g
      class:aside={desk.proving.aside.has(finding.key)}
      class:shown={desk.proving.shown === finding.key}
      transform="translate({at!.x} {at!.y})"
    >
      <path
        d="M0 0 L{-4} {-POINT} H{-WIDE / 2 + 3} a3 3 0 0 1 -3 -3 v{-HIGH + 6} a3 3 0 0 1 3 -3 h{WIDE -
          6} a3 3 0 0 1 3 3 v{HIGH - 6} a3 3 0 0 1 -3 3 H4 Z"
      />
      <text y={-POINT - HIGH / 2 + 4}>{number}</text>
    </g>
  {/each}
</svg>

<style>
  .labels {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    pointer-events: none;
  }
  path {
    fill: #fffdf6;
    stroke: #a32a21;
    stroke-width: 1.5;
  }
  text {
    fill: #2a2722;
    font-size: 11px;
    text-anchor: middle;
    font-variant-numeric: tabular-nums;
  }
  .shown path {
    fill: #f6d9c6;
    stroke: #d4561c;
    stroke-width: 2.5;
  }
  .aside path {
    fill: #e3ddd0;
    stroke: #6b6355;
  }
  .aside text {
    fill: #5a5348;
  }
</style>
