<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import Image from '@lucide/svelte/icons/image';
  import { anchorCount, setNode, shapesIn, type Shape } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { Attachment } from 'svelte/attachments';
  import NameField from '$lib/ui/NameField.svelte';
  import RowMarks from './RowMarks.svelte';
  import RowSwitch from './RowSwitch.svelte';
  import { canFold, type Drop, type Row } from './rows';
  import { inkName, nextInk, pressRow, turnRow, type RowTurn } from './stack-actions';
  import Thumbnail from './Thumbnail.svelte';

  interface Props {
    desk: Desk;
    row: Row;
    /** Where it stands in the list, pixels. */
    top: number;
    folded: boolean;
    chosen: boolean;
    /** Tab comes to this row. */
    stop: boolean;
    naming: boolean;
    /** Makes a row one that can be dragged and dropped on, once that has been loaded. */
    dragRow: ((row: string) => Attachment<HTMLElement>) | null;
    /** What is dragged would be dropped here. */
    drop: Drop | null;
    fold: () => void;
    name: () => void;
    named: (byKey: boolean) => void;
  }
  let { desk, row, top, folded, chosen, stop, naming, dragRow, drop, fold, name, named }: Props = $props();
  /** How much farther in a row stands than the one it is in, pixels. */
  const INDENT = 8;
  const node = $derived(row.node);
  const id = $derived(node.id);
  /** Shapes a group is pictured with at most. */
  const MOST_PICTURED = 100;
  const pictured = $derived(node.type === 'group' && shapesIn(node).length <= MOST_PICTURED);
  const drag = $derived(dragRow?.(id));
  const current = $derived(node.id === desk.choosing.layer);

  /** Whole layers and groups are left out of drift where that is shown; the panel does it for shapes. */
  const switches = $derived<readonly RowTurn[]>(
    desk.step === 'refine' && canFold(node) ? ['measured', 'locked', 'shown'] : ['locked', 'shown'],
  );
  const inherited = $derived({ measured: row.unmeasured, locked: row.shut, shown: row.hidden });

  /** Anchors of a shape, and in Refine the fewest that would do. */
  function anchorText(shape: Shape): string {
    const n = anchorCount(shape);
    const cost = desk.step === 'refine' ? desk.picture.drifts.economyOf(shape.id) : null;
    const fewest = cost ? n - cost.anchors + cost.fewest : n;
    return fewest < n ? `${n}, could be ${fewest}` : n === 1 ? '1 anchor' : `${n} anchors`;
  }
  /** Mean drift of a shape, where it is measured. */
  function driftText(shape: Shape): string {
    if (shape.meant) return ' · meant so';
    if (desk.step === 'refine' && (shape.unmeasured || row.unmeasured)) return ' · left out';
    const measured = desk.step === 'refine' && desk.picture.driftSettings;
    const mean = measured ? desk.picture.drifts.of(shape.id)?.figures.mean : undefined;
    return mean === undefined || Number.isNaN(mean) ? '' : ` · ${mean.toFixed(1)} px`;
  }
</script>

<div
  id="row-{node.id}"
  {@attach drag}
  class="row {node.type}"
  class:chosen
  class:dim={!node.shown || row.hidden}
  class:current
  class:deep={row.depth > 3}
  class:lit={desk.pointing.overOnBed === node.id}
  class:takes={drop?.part === 'in'}
  style:top="{top}px"
  style:padding-left="{4 + row.depth * INDENT}px"
  role="row"
  aria-label={node.type === 'shape' ? `${node.name}, ${anchorText(node)}${driftText(node)}` : node.name}
  tabindex={stop ? 0 : -1}
  aria-level={row.depth + 1}
  aria-posinset={row.place}
  aria-setsize={row.beside}
  aria-expanded={canFold(node) ? !folded : undefined}
  onpointerenter={() => (desk.pointing.overInStack = node.id)}
  aria-selected={node.type === 'layer' ? current : chosen}
>
  <RowMarks {row} {drop} indent={INDENT} />
  <span class="lead" role="gridcell">
    {#if node.type === 'shape'}
      <Thumbnail {desk} {node} place="row" />
    {:else if node.type === 'picture'}
      <span class="row-switch"><Image size={16} strokeWidth={1.75} /></span>
    {:else}
      <button
        class="row-switch"
        tabindex="-1"
        aria-label="{folded ? 'Unfold' : 'Fold'} {node.name}"
        onclick={fold}
      >
        {#if folded}<ChevronRight size={16} />{:else}<ChevronDown size={16} />{/if}
      </button>
      {#if node.type === 'group' && pictured}<Thumbnail {desk} {node} place="row" />{/if}
    {/if}
  </span>
  {#if naming}
    <span class="name" role="gridcell">
      <NameField
        label="Name of {node.name}"
        name={node.name}
        editing
        change={(to) => void desk.change('Rename', setNode(node.id, { name: to }))}
        done={named}
        refuse={(text) => desk.say(text, 'bad')}
      />
    </span>
  {:else}
    <!-- svelte-ignore a11y_click_events_have_key_events -->
    <div
      class="name"
      role="gridcell"
      tabindex="-1"
      data-tip="{node.name} (double-click or F2 renames)"
      onclick={(e) => pressRow(desk, row, e.shiftKey)}
      ondblclick={name}
    >
      <span class="words" dir="auto">{node.name}</span>
      {#if node.type === 'shape'}
        <span class="quiet small">{anchorText(node)}{driftText(node)}</span>
      {/if}
    </div>
  {/if}
  {#if node.type === 'layer'}
    <span role="gridcell">
      <button
        class="row-switch ink"
        tabindex="-1"
        aria-label="Ink of {node.name}: {inkName(node.ink)}"
        data-tip="Ink: {inkName(node.ink)}"
        onclick={() => nextInk(desk, node)}
      >
        <i class:auto={node.ink === null} style:background={node.ink}></i>
      </button>
    </span>
  {/if}
  {#each switches as what (what)}
    <span role="gridcell">
      <RowSwitch
        {what}
        of={node}
        inherited={inherited[what]}
        faint={what !== 'shown'}
        tabindex={-1}
        turn={() => turnRow(desk, row, what)}
      />
    </span>
  {/each}
</div>

<style>
  .row {
    position: absolute;
    left: 0;
    right: 0;
    display: flex;
    align-items: center;
    gap: 4px;
    height: 38px;
    padding-right: 6px;
    border-left: 3px solid transparent;
  }
  .row:focus-visible {
    outline-offset: -2px;
  }
  .row.layer {
    background: var(--ledge);
  }
  .row.current {
    border-left-color: var(--leaf);
  }
  .row.chosen {
    border-left-color: var(--carrot);
    background: var(--carrot-wash);
  }
  .row.lit {
    background: color-mix(in srgb, var(--carrot-wash) 55%, transparent);
  }
  .row.takes {
    outline: 2px solid var(--carrot);
    outline-offset: -2px;
  }
  .lead {
    display: flex;
    align-items: center;
  }
  .dim .words {
    color: var(--quiet);
  }
  .dim :global(svg.thumb) {
    opacity: 0.5;
  }
  .lead {
    flex: none;
  }
  .name {
    display: flex;
    flex: 1;
    flex-direction: column;
    align-items: flex-start;
    justify-content: center;
    min-width: 0;
    height: 100%;
    padding: 0 2px;
    text-align: start;
    cursor: pointer;
  }
  .name:focus {
    outline: none;
  }
  .layer .name,
  .group .name {
    font-weight: 650;
  }
  .words {
    max-width: 100%;
    overflow: hidden;
    line-height: 1.2;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .small {
    font-size: 11.5px;
    line-height: 1.2;
    white-space: nowrap;
  }
  /* Farther in, there is no room beside the switches. */
  .deep .small {
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .row:hover :global(.faint),
  .row:focus-within :global(.faint) {
    opacity: 1;
  }
  .ink i {
    width: 13px;
    height: 13px;
    border: 1px solid var(--quiet);
    border-radius: 4px;
  }
  .ink i.auto {
    background: conic-gradient(#2340c7 0 25%, #b0127b 0 50%, #0f6b3c 0 75%, #22252b 0);
  }
</style>
