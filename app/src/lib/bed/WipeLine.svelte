<script lang="ts">
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { Wipe } from '$lib/desk/comparing.svelte';
  import { toBed, toSheet } from '$lib/desk/view';
  import { leaves, wipeThrough, wipeTowards, wipeWays } from './wipe';

  // Picture on one side of a line, drawing on the other. It is dragged by a tab outside of the sheet, and turned by the knob beyond.
  let { desk, wipe }: { desk: Desk; wipe: Wipe } = $props();
  const { looking } = $derived(desk);
  const { sheet } = $derived(desk.art);
  const ways = $derived(wipeWays(wipe));
  /** Screen pixels: of the tab beyond the sheet, of the knob beyond the tab, and kept clear of the bed's edges. */
  const [TAB, KNOB, CLEAR] = [14, 22, 12];
  const REACH = 20_000;
  const middle = $derived(toBed(looking.view, wipe.at));
  const ends = $derived(
    [-REACH, REACH].map((k) => ({ x: middle.x + k * ways.along.x, y: middle.y + k * ways.along.y })),
  );
  /** The tab: just outside of the sheet along the line, but on the bed. */
  const tab = $derived.by(() => {
    const { width, height } = looking.bed;
    const edge = leaves(wipe.at, ways.along, sheet);
    const out = edge ? toBed(looking.view, edge) : middle;
    const at = { x: out.x + TAB * ways.along.x, y: out.y + TAB * ways.along.y };
    const room = { width: width - 2 * CLEAR, height: height - 2 * CLEAR };
    const inside = leaves({ x: middle.x - CLEAR, y: middle.y - CLEAR }, ways.along, room);
    const far = (p: { x: number; y: number }): number => (p.x - middle.x) * ways.along.x + (p.y - middle.y) * ways.along.y; // prettier-ignore
    const most = inside ? far({ x: inside.x + CLEAR, y: inside.y + CLEAR }) - KNOB : Infinity;
    const k = Math.min(far(at), most);
    return { x: middle.x + k * ways.along.x, y: middle.y + k * ways.along.y };
  });
  const knob = $derived({ x: tab.x + KNOB * ways.along.x, y: tab.y + KNOB * ways.along.y });

  let svg: SVGSVGElement | undefined = $state();
  let held: { readonly id: number; readonly part: 'tab' | 'knob'; readonly dx: number; readonly dy: number } | null = null; // prettier-ignore
  const onBed = (e: PointerEvent): { x: number; y: number } => {
    const box = svg!.getBoundingClientRect();
    return { x: e.clientX - box.left, y: e.clientY - box.top };
  };
  function down(e: PointerEvent & { currentTarget: Element }, part: 'tab' | 'knob'): void {
    e.stopPropagation();
    e.currentTarget.setPointerCapture(e.pointerId);
    const p = onBed(e);
    held = { id: e.pointerId, part, dx: p.x - middle.x, dy: p.y - middle.y };
  }
  function move(e: PointerEvent): void {
    if (held?.id !== e.pointerId) return;
    e.stopPropagation();
    const p = onBed(e);
    desk.comparing.wipe =
      held.part === 'tab'
        ? wipeThrough(wipe, toSheet(looking.view, { x: p.x - held.dx, y: p.y - held.dy }))
        : wipeTowards(wipe, toSheet(looking.view, p));
  }
  const up = (e: PointerEvent): void => {
    e.stopPropagation();
    held = null;
  };

  /** A press of an arrow: pixels of the screen, and degrees with Shift. */
  const [STEP_PX, STEP_DEGREES] = [10, 5];
  function key(e: KeyboardEvent): void {
    const by = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 }[e.key];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    if (e.shiftKey) {
      desk.comparing.wipe = { ...wipe, angle: wipe.angle + (by * STEP_DEGREES * Math.PI) / 180 };
      return;
    }
    const sideways = e.key === 'ArrowLeft' || e.key === 'ArrowRight';
    const step = (by * STEP_PX) / looking.view.scale;
    const at = { x: wipe.at.x + (sideways ? step : 0), y: wipe.at.y + (sideways ? 0 : step) };
    desk.comparing.wipe = wipeThrough(wipe, at);
  }
  const degrees = $derived(Math.round((wipe.angle * 180) / Math.PI));
  const turned = $derived((wipe.angle * 180) / Math.PI - 90);
</script>

<svg bind:this={svg} class="wipe">
  <line x1={ends[0]!.x} y1={ends[0]!.y} x2={ends[1]!.x} y2={ends[1]!.y} />
  <g
    role="slider"
    tabindex="0"
    aria-label="Wipe"
    aria-valuenow={degrees}
    aria-valuetext="picture on one side, drawing on the other, at {degrees}°"
    onkeydown={key}
    onpointerdown={(e) => down(e, 'tab')}
    onpointermove={move}
    onpointerup={up}
    onpointercancel={up}
  >
    <rect
      class="tab"
      x={tab.x - 16}
      y={tab.y - 11}
      width="32"
      height="22"
      rx="6"
      transform="rotate({turned} {tab.x} {tab.y})"
    />
  </g>
  <!-- svelte-ignore a11y_no_static_element_interactions -->
  <circle
    class="knob"
    cx={knob.x}
    cy={knob.y}
    r="9"
    onpointerdown={(e) => down(e, 'knob')}
    onpointermove={move}
    onpointerup={up}
    onpointercancel={up}
  />
</svg>

<style>
  .wipe {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    pointer-events: none;
  }
  line {
    stroke: #22252b;
    stroke-width: 1;
    paint-order: stroke;
    filter: drop-shadow(0 0 1px #fffdf6);
  }
  g,
  .knob {
    pointer-events: all;
    cursor: grab;
    touch-action: none;
  }
  g:focus-visible {
    outline: none;
  }
  g:focus-visible .tab {
    stroke: var(--plum);
    stroke-width: 3;
  }
  .tab,
  .knob {
    fill: var(--paper);
    stroke: var(--carrot);
    stroke-width: 2;
  }
</style>
