<script lang="ts">
  import { leavesOf, type Leaf } from './leaves';

  // The stem along the foot of the bed: drag along it to see the drawing as it was.
  interface Props {
    anchors: Int32Array;
    at: number;
    /** What is told of the moment, read out. */
    text: string;
    change: (changes: number) => void;
  }
  let { anchors, at, text, change }: Props = $props();

  let width = $state(600);
  /** Screen pixels: of the stem's room, kept clear at its ends, for a leaf, and of the smallest and the largest leaf. */
  const [HIGH, CLEAR, APART, SMALL, LARGE] = [46, 14, 5, 8, 20];
  const long = $derived(Math.max(1, width - 2 * CLEAR));
  const count = $derived(anchors.length - 1);
  const leaves = $derived(leavesOf(anchors, Math.floor(long / APART)));
  const x = (share: number): number => CLEAR + share * long;
  const MIDDLE = HIGH / 2;
  function shape({ at: share, size, up }: Leaf): string {
    const [l, side] = [SMALL + size * (LARGE - SMALL), up ? -1 : 1];
    const [fx, fy] = [x(share), MIDDLE];
    const [tx, ty] = [fx + 0.35 * l, fy + side * l];
    return `M${fx} ${fy}Q${fx - 0.3 * l} ${fy + side * 0.7 * l} ${tx} ${ty}Q${fx + 0.75 * l} ${fy + side * 0.4 * l} ${fx} ${fy}Z`;
  }
  const now = $derived(count === 0 ? 1 : at / count);

  let svg: SVGSVGElement | undefined = $state();
  let dragged = $state(false);
  function go(e: PointerEvent): void {
    const box = svg!.getBoundingClientRect();
    change(((e.clientX - box.left - CLEAR) / long) * count);
  }
  function down(e: PointerEvent): void {
    dragged = true;
    svg!.setPointerCapture(e.pointerId);
    go(e);
  }
  function key(e: KeyboardEvent): void {
    const page = Math.max(1, Math.round(count / 10));
    const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1, PageDown: -page, PageUp: page, Home: -count, End: count }[e.key]; // prettier-ignore
    if (by === undefined) return;
    e.preventDefault();
    e.stopPropagation();
    change(at + by);
  }
</script>

<div class="stem" bind:clientWidth={width}>
  <svg
    bind:this={svg}
    width="100%"
    height={HIGH}
    role="slider"
    tabindex="0"
    aria-label="Replay"
    aria-valuemin="0"
    aria-valuemax={count}
    aria-valuenow={at}
    aria-valuetext={text}
    onpointerdown={down}
    onpointermove={(e) => dragged && go(e)}
    onpointerup={() => (dragged = false)}
    onpointercancel={() => (dragged = false)}
    onkeydown={key}
  >
    <line class="rest" x1={x(0)} y1={MIDDLE} x2={x(1)} y2={MIDDLE} />
    <line class="grown" x1={x(0)} y1={MIDDLE} x2={x(now)} y2={MIDDLE} />
    {#each leaves as leaf (leaf.changes)}
      <path class={leaf.changes <= at ? 'grown' : 'rest'} d={shape(leaf)} />
    {/each}
    <circle cx={x(now)} cy={MIDDLE} r="8" />
  </svg>
</div>

<style>
  .stem {
    flex-basis: 100%;
  }
  svg {
    display: block;
    overflow: visible;
    cursor: pointer;
    touch-action: none;
  }
  line {
    stroke-width: 2.5;
    stroke-linecap: round;
  }
  line.rest {
    stroke: var(--line);
  }
  line.grown {
    stroke: var(--leaf);
  }
  path.rest {
    fill: var(--line);
  }
  path.grown {
    fill: var(--leaf);
  }
  circle {
    fill: var(--paper);
    stroke: var(--carrot);
    stroke-width: 2;
  }
  svg:focus-visible {
    outline: none;
  }
  svg:focus-visible circle {
    stroke: var(--plum);
    stroke-width: 3.5;
  }
</style>
