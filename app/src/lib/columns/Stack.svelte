<script lang="ts">
  import { lonelyGroup } from '$lib/edits/grouping';
  import { tick, untrack } from 'svelte';
  import LayersPlus from '@lucide/svelte/icons/layers-2';
  import ListFilter from '@lucide/svelte/icons/list-filter';
  import { chosenNodes } from '$lib/desk/choice';
  import { createVirtualizer, defaultRangeExtractor } from '@tanstack/svelte-virtual';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import PictureRows from './PictureRows.svelte';
  import CommandButton from './CommandButton.svelte';
  import { ALL_ROWS, answersTo, asksForAll, placeInWords, type Asked } from './find-rows';
  import { RowDrags } from './row-drags.svelte';
  import { rowsFound, rowStep, stackRows } from './rows';
  import StackRow from './StackRow.svelte';
  import { addNewLayer, pressRow } from './stack-actions';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);

  const ROW_PX = 38;
  /** Rows made beyond either end of what is in sight. */
  const SPARE_ROWS = 6;
  const NONE_FOLDED: ReadonlySet<string> = new Set();
  let folded: ReadonlySet<string> = $state.raw(NONE_FOLDED);
  let naming: string | null = $state(null);
  /** The row that Tab comes to: the one the keyboard was on last, else what is chosen. */
  let walked: string | null = $state(null);
  let list: HTMLElement | undefined = $state();

  // What is kept: a drag or an offer changes the drawing many times before it is a step.
  /** What rows are asked for; null while nothing is. */
  let asked: Asked | null = $state.raw(null);
  const wanted = $derived(asked && !asksForAll(asked) ? answersTo(asked, desk) : null);
  const all = $derived(stackRows(desk.drawing.kept, wanted ? NONE_FOLDED : folded));
  const rows = $derived(wanted ? rowsFound(all, wanted) : all);
  const chosen = $derived(
    new Set(desk.live ? [desk.live.shape] : [...desk.choice.nodes, ...desk.choice.shapes]),
  );
  const rowOf = (id: string | null | undefined): number =>
    id ? rows.findIndex((r) => r.node.id === id) : -1;
  const stop = $derived(
    Math.max(0, rowOf(walked) >= 0 ? rowOf(walked) : rowOf(desk.choice.nodes[0] ?? desk.choice.shapes[0])),
  );

  const virtual = createVirtualizer<HTMLElement, HTMLElement>({
    count: 0,
    getScrollElement: () => list ?? null,
    estimateSize: () => ROW_PX,
    overscan: SPARE_ROWS,
  });
  /** Ids of the rows that the list was given last. */
  let ids: readonly string[] = [];
  $effect(() => {
    const at = stop;
    // Most changes leave the rows as they are.
    const same = rows.length === ids.length && rows.every((row, i) => row.node.id === ids[i]);
    if (!same) ids = rows.map((row) => row.node.id);
    untrack(() => tellList(at, same));
  });
  let lastStop = -1;
  function tellList(at: number, same: boolean): void {
    if (same && at === lastStop && list) return;
    lastStop = at;
    $virtual.setOptions({
      count: ids.length,
      getScrollElement: () => list ?? null,
      getItemKey: (i: number) => ids[i] ?? i,
      // The row that has the keyboard stays, and the one that is dragged, also when they are scrolled out of sight.
      rangeExtractor: (range: Parameters<typeof defaultRangeExtractor>[0]) => {
        const kept = [Math.min(at, range.count - 1), ids.indexOf(drags.taken ?? '')].filter((i) => i >= 0);
        return [...new Set([...defaultRangeExtractor(range), ...kept])].sort((a, b) => a - b);
      },
    });
  }

  // The row of what is chosen comes into sight.
  $effect(() => {
    const id = desk.choice.nodes.at(-1) ?? desk.choice.shapes.at(-1);
    const at = untrack(() => rowOf(id));
    if (at >= 0 && list) untrack(() => $virtual.scrollToIndex(at, { align: 'auto' }));
  });

  /** Something was chosen once: what it is arranged by comes then, and stays as it was left. */
  let arranged = $state(false);
  /** One group is chosen that stands several times. */
  const lettered = $derived(
    desk.choice.shapes.length === 1 && desk.shapeOf(desk.choice.shapes[0]!)?.lettering !== undefined,
  );
  const repeated = $derived(desk.choice.nodes.length === 1 && lonelyGroup(desk)?.repeat !== undefined);
  $effect(() => {
    if (chosen.size > 0 || desk.pointing.task) arranged = true;
  });

  const drags = new RowDrags({
    get desk() {
      return desk;
    },
    row: (id) => rows[rowOf(id)],
    isFolded: (id) => folded.has(id),
    canDrag: (id) => naming !== id,
  });
  $effect(() => drags.begin());
  // Folded away under the pointer, no row is pointed at any more.
  $effect(() => () => (desk.pointing.overInStack = null));

  // Where what is chosen came to stand is said when it moved, not when something else was chosen.
  let placed = '';
  let placedId = '';
  let said = $state('');
  $effect(() => {
    const id = chosenNodes(desk.choice, desk.drawing.kept)[0];
    const place = id === undefined ? null : placeInWords(desk, id);
    if (id !== undefined && id === placedId && place && place !== placed) said = place;
    placed = place ?? '';
    placedId = id ?? '';
  });

  function fold(id: string): void {
    const next = new Set(folded);
    if (!next.delete(id)) next.add(id);
    folded = next;
  }
  /** Brings the keyboard to a row. */
  async function goTo(at: number): Promise<void> {
    walked = rows[at]!.node.id;
    $virtual.scrollToIndex(at, { align: 'auto' });
    await tick();
    document.getElementById(`row-${walked}`)?.focus({ preventScroll: true });
  }
  function keydown(e: KeyboardEvent): void {
    if (e.ctrlKey || e.metaKey || e.altKey || naming) return;
    const target = e.target as HTMLElement;
    const element = target.closest<HTMLElement>('[role=row]');
    const at = element ? rowOf(element.id.slice('row-'.length)) : -1;
    const row = rows[at];
    if (!element || !row) return;
    const controls = [...element.querySelectorAll<HTMLElement>('button')];
    const control = controls.indexOf(target);
    if (control >= 0 && (e.key === 'ArrowRight' || e.key === 'ArrowLeft')) {
      const next = control + (e.key === 'ArrowRight' ? 1 : -1);
      if (next < controls.length) (controls[next] ?? element).focus();
    } else if (control < 0 && (e.key === 'Enter' || e.key === ' ')) pressRow(desk, row, e.shiftKey);
    else if (e.key === 'F2') naming = row.node.id;
    else {
      const page = Math.max(1, Math.floor((list?.clientHeight ?? 0) / ROW_PX) - 1);
      const step = rowStep(rows, at, e.key, folded, page);
      if (!step) return;
      if ('to' in step) void goTo(step.to);
      else if ('fold' in step) fold(step.fold);
      else controls[0]?.focus();
    }
    e.preventDefault();
    e.stopPropagation();
  }
  function focused(e: FocusEvent): void {
    const row = (e.target as HTMLElement).closest('[role=row]');
    if (row) walked = row.id.slice('row-'.length);
  }
</script>

<aside class="stack" aria-label="Stack">
  <div class="head">
    <h2>Stack</h2>
    <span class="head-actions">
      <CommandButton {workplace} id="show-only" bare />
      <CommandButton {workplace} id="lock-others" bare />
      <button
        class="icon-button"
        aria-label="Find in the stack"
        aria-pressed={asked !== null}
        data-tip="Find in the stack"
        onclick={() => (asked = asked ? null : ALL_ROWS)}
      >
        <ListFilter size={18} strokeWidth={1.75} />
      </button>
      <button
        class="icon-button"
        aria-label="Add a layer"
        data-tip="Add a layer"
        onclick={() => addNewLayer(desk)}
      >
        <LayersPlus size={18} strokeWidth={1.75} />
      </button>
    </span>
  </div>
  <p class="sr-only" aria-live="polite">{said}</p>
  {#if asked}
    {#await import('./StackFind.svelte') then { default: StackFind }}
      <StackFind
        asked={asked ?? ALL_ROWS}
        found={wanted ? rows.filter((row) => wanted(row.node)).length : rows.length}
        ask={(next) => (asked = next)}
        first={() => {
          const at = rows.findIndex((row) => !wanted || wanted(row.node));
          if (at >= 0) void goTo(at);
        }}
        close={() => (asked = null)}
      />
    {/await}
  {/if}
  <div
    class="list"
    bind:this={list}
    role="treegrid"
    aria-label="Layers and shapes, top first"
    aria-rowcount={rows.length}
    aria-multiselectable="true"
    tabindex="-1"
    onkeydown={keydown}
    onfocusin={focused}
    onpointerleave={() => (desk.pointing.overInStack = null)}
  >
    <div style:height="{$virtual.getTotalSize()}px" class="tall" role="presentation">
      {#each $virtual.getVirtualItems() as item (item.key)}
        {@const row = rows[item.index]}
        {#if row}
          <StackRow
            {desk}
            {row}
            top={item.start}
            folded={folded.has(row.node.id)}
            chosen={chosen.has(row.node.id)}
            stop={item.index === stop}
            naming={naming === row.node.id}
            dragRow={drags.attach}
            drop={drags.drop?.row === row.node.id ? drags.drop : null}
            fold={() => fold(row.node.id)}
            name={() => (naming = row.node.id)}
            named={(byKey) => {
              naming = null;
              if (byKey) void goTo(item.index);
            }}
          />
        {/if}
      {/each}
    </div>
  </div>
  {#if arranged}
    {#await import('./Arrange.svelte') then { default: Arrange }}<Arrange {workplace} />{/await}
    {#if lettered}
      {#await import('./Lettering.svelte') then { default: Lettering }}<Lettering
          {workplace}
        />{:catch}<!-- it stays as it is -->{/await}
    {/if}
    {#await import('./Lines.svelte') then { default: Lines }}<Lines
        {workplace}
      />{:catch}<!-- they stay as they are -->{/await}
    {#if desk.choice.shapes.length > 1}
      {#await import('./Combine.svelte') then { default: Combine }}<Combine
          {workplace}
        />{:catch}<!-- they stay as they are -->{/await}
    {/if}
    {#if repeated}
      {#await import('./Copies.svelte') then { default: Copies }}<Copies
          {desk}
        />{:catch}<!-- they stay as they are -->{/await}
    {/if}
    {#await import('./Covering.svelte') then { default: Covering }}<Covering {desk} />{/await}
  {/if}
  <PictureRows {desk} />
  {#await import('./Steps.svelte') then { default: Steps }}<Steps {desk} />{/await}
</aside>

<style>
  .stack {
    grid-area: stack;
    display: flex;
    flex-direction: column;
    width: 208px;
    min-height: 0;
    border-right: 1px solid var(--line);
    background: var(--paper);
  }
  @media (width < 760px) {
    .stack {
      z-index: 5;
      grid-area: bed;
      justify-self: start;
      width: min(260px, 80vw);
    }
  }
  .head {
    display: flex;
    align-items: center;
    justify-content: space-between;
    height: 38px;
    padding: 0 6px 0 12px;
  }
  h2 {
    font-size: 14px;
  }
  .head-actions {
    display: flex;
  }
  .list {
    position: relative;
    flex: 1;
    min-height: 0;
    overflow: hidden auto;
  }
  .tall {
    position: relative;
  }
</style>
