<script lang="ts">
  import { untrack } from 'svelte';
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import Eye from '@lucide/svelte/icons/eye';
  import EyeOff from '@lucide/svelte/icons/eye-off';
  import Image from '@lucide/svelte/icons/image';
  import LayersPlus from '@lucide/svelte/icons/layers-2';
  import Lock from '@lucide/svelte/icons/lock';
  import LockOpen from '@lucide/svelte/icons/lock-open';
  import {
    addLayer,
    anchorCount,
    INKS,
    setLayerInk,
    setNode,
    setPicture,
    traceFrom,
    type Layer,
    type Shape,
  } from '@mirrot/core';
  import { chooseNodes, chooseShapes } from '$lib/desk/choice';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { newId } from '$lib/ids';
  import NameField from '$lib/ui/NameField.svelte';
  import { rowsInSight, stackRows, type Row } from './rows';
  import Steps from './Steps.svelte';
  import Thumbnail from './Thumbnail.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);

  const HEIGHT = 38;
  let folded: ReadonlySet<string> = $state.raw(new Set());
  let naming: string | null = $state(null);
  let top = $state(0);
  let room = $state(600);
  let list: HTMLElement | undefined = $state();

  const rows = $derived(stackRows(desk.art, folded));
  const sight = $derived(rowsInSight(rows.length, HEIGHT, top, room));
  const chosen = $derived(
    new Set(desk.live ? [desk.live.shape] : [...desk.choice.nodes, ...desk.choice.shapes]),
  );

  // The row of what is chosen comes into sight.
  $effect(() => {
    const id = desk.choice.nodes.at(-1) ?? desk.choice.shapes.at(-1);
    const at = id ? untrack(() => rows.findIndex((r) => r.node.id === id)) : -1;
    if (at < 0 || !list) return;
    if (at * HEIGHT < list.scrollTop) list.scrollTop = at * HEIGHT;
    else if ((at + 1) * HEIGHT > list.scrollTop + list.clientHeight)
      list.scrollTop = (at + 1) * HEIGHT - list.clientHeight;
  });

  /** Anchors of a shape, and in Refine the fewest that would do. */
  function anchorText(shape: Shape): string {
    const n = anchorCount(shape);
    const cost = desk.step === 'refine' ? desk.picture.drifts.economyOf(shape.id) : null;
    const fewest = cost ? n - cost.anchors + cost.fewest : n;
    return fewest < n ? `${n}, could be ${fewest}` : n === 1 ? '1 anchor' : `${n} anchors`;
  }
  /** Mean drift of a shape, where it is measured. */
  function driftText(id: string): string {
    if (desk.shapeOf(id)?.meant) return ' · meant so';
    const mean =
      desk.step === 'refine' && desk.picture.driftSettings
        ? desk.picture.drifts.of(id)?.figures.mean
        : undefined;
    return mean === undefined || Number.isNaN(mean) ? '' : ` · ${mean.toFixed(1)} px`;
  }
  function fold(id: string): void {
    const next = new Set(folded);
    if (!next.delete(id)) next.add(id);
    folded = next;
  }
  function press({ node, hidden, shut }: Row, e: MouseEvent): void {
    if (node.type === 'layer') {
      desk.choosing.layer = node.id;
      return;
    }
    if (shut || node.locked || hidden || !node.shown)
      return desk.say(
        `${node.name} is ${shut || node.locked ? 'locked' : 'hidden'}, so it cannot be chosen.`,
        'plain',
      );
    if (node.type !== 'shape') return desk.choose(chooseNodes([node]));
    const now = desk.choice.shapes;
    if (e.shiftKey)
      desk.choose(chooseShapes(now.includes(node.id) ? now.filter((s) => s !== node.id) : [...now, node.id]));
    else desk.choose(chooseShapes([node.id], desk.step === 'refine' ? 'path' : 'shape'));
  }

  function turn(node: Row['node'], what: 'shown' | 'locked'): void {
    const words = what === 'shown' ? (node.shown ? 'Hide' : 'Show') : node.locked ? 'Unlock' : 'Lock';
    desk.change(`${words} ${node.name}`, setNode(node.id, { [what]: !node[what] }));
  }
  function newLayer(): void {
    const names = new Set(desk.art.layers.map((l) => l.name));
    let n = desk.art.layers.length + 1;
    while (names.has(`Layer ${n}`)) n++;
    const layer: Layer = {
      id: newId(),
      type: 'layer',
      name: `Layer ${n}`,
      shown: true,
      locked: false,
      opacity: 1,
      ink: null,
      children: [],
    };
    desk.change('Add a layer', addLayer(layer, desk.choosing.layer));
    desk.choosing.layer = layer.id;
  }
  /** The next of the fixed inks, then back to choosing by itself. */
  function nextInk(layer: Layer): void {
    const at = INKS.findIndex((i) => i.hex === layer.ink);
    const ink = INKS[at + 1] ?? null;
    desk.change('Set the layer’s ink', setLayerInk(layer.id, ink?.hex ?? null));
    desk.say(
      ink
        ? `${layer.name} is traced in ${ink.name.toLowerCase()}.`
        : `Ink on ${layer.name} is chosen against the picture.`,
    );
  }
  const inkName = (hex: string | null): string =>
    INKS.find((i) => i.hex === hex)?.name.toLowerCase() ?? 'chosen by itself';
</script>

<aside class="stack" aria-label="Stack">
  <div class="head">
    <h2>Stack</h2>
    <button class="icon-button" aria-label="Add a layer" title="Add a layer" onclick={newLayer}>
      <LayersPlus size={18} strokeWidth={1.75} />
    </button>
  </div>
  <div
    class="list"
    bind:this={list}
    bind:clientHeight={room}
    onscroll={(e) => (top = e.currentTarget.scrollTop)}
    role="list"
    aria-label="Layers and shapes, top first"
  >
    <div style:height="{rows.length * HEIGHT}px" class="tall" role="presentation">
      {#each rows.slice(sight.from, sight.to) as row, i (row.node.id)}
        {@const { node } = row}
        <div
          class="row {node.type}"
          class:chosen={chosen.has(node.id)}
          class:dim={!node.shown || row.hidden}
          class:current={node.id === desk.choosing.layer}
          style:top="{(sight.from + i) * HEIGHT}px"
          style:padding-left="{4 + row.depth * 8}px"
          role="listitem"
        >
          {#if node.type === 'shape'}
            <Thumbnail {desk} shape={node} place="row" />
          {:else if node.type === 'picture'}
            <span class="fold"><Image size={16} strokeWidth={1.75} /></span>
          {:else}
            <button
              class="fold"
              aria-label="{folded.has(node.id) ? 'Unfold' : 'Fold'} {node.name}"
              aria-expanded={!folded.has(node.id)}
              onclick={() => fold(node.id)}
            >
              {#if folded.has(node.id)}<ChevronRight size={16} />{:else}<ChevronDown size={16} />{/if}
            </button>
          {/if}
          {#if naming === node.id}
            <NameField
              label="Name of {node.name}"
              name={node.name}
              editing
              change={(name) => void desk.change('Rename', setNode(node.id, { name }))}
              done={() => (naming = null)}
              refuse={(text) => desk.say(text, 'bad')}
            />
          {:else}
            <button
              class="name"
              aria-pressed={node.type === 'layer' ? node.id === desk.choosing.layer : chosen.has(node.id)}
              title="{node.name} (double-click renames)"
              onclick={(e) => press(row, e)}
              ondblclick={() => (naming = node.id)}
              onkeydown={(e) => e.key === 'F2' && (naming = node.id)}
            >
              <span class="words" dir="auto">{node.name}</span>
              {#if node.type === 'shape'}
                <span class="quiet small">{anchorText(node)}{driftText(node.id)}</span>
              {/if}
            </button>
          {/if}
          {#if node.type === 'layer'}
            <button
              class="ink"
              aria-label="Ink of {node.name}: {inkName(node.ink)}"
              title="Ink: {inkName(node.ink)}"
              onclick={() => nextInk(node)}
            >
              <i class:auto={node.ink === null} style:background={node.ink}></i>
            </button>
          {/if}
          <button
            class="mini"
            aria-label="{node.locked ? 'Unlock' : 'Lock'} {node.name}"
            aria-pressed={node.locked}
            title={node.locked ? 'Unlock' : 'Lock'}
            onclick={() => turn(node, 'locked')}
          >
            {#if node.locked || row.shut}<Lock size={14} strokeWidth={1.75} />{:else}<span class="faint"
                ><LockOpen size={14} strokeWidth={1.75} /></span
              >{/if}
          </button>
          <button
            class="mini"
            aria-label="{node.shown ? 'Hide' : 'Show'} {node.name}"
            aria-pressed={!node.shown}
            title={node.shown ? 'Hide' : 'Show'}
            onclick={() => turn(node, 'shown')}
          >
            {#if node.shown && !row.hidden}<Eye size={15} strokeWidth={1.75} />{:else}<EyeOff
                size={15}
                strokeWidth={1.75}
              />{/if}
          </button>
        </div>
      {/each}
    </div>
  </div>
  <div class="pictures">
    {#each [...desk.art.pictures].reverse() as p (p.id)}
      <div class="picture" class:dim={!p.shown}>
        <button
          class="name"
          aria-pressed={desk.art.traced === p.id}
          title={desk.art.traced === p.id ? `${p.name} is being traced` : `Trace ${p.name}`}
          onclick={() => void desk.change('Trace another picture', traceFrom(p.id))}
        >
          <Image size={16} strokeWidth={1.75} />
          <span class="words" dir="auto">{p.name}</span>
        </button>
        <button
          class="mini"
          aria-label="{p.locked ? 'Unlock' : 'Lock'} {p.name}"
          aria-pressed={p.locked}
          title={p.locked ? 'Unlock' : 'Lock'}
          onclick={() =>
            void desk.change(
              p.locked ? 'Unlock the picture' : 'Lock the picture',
              setPicture(p.id, { locked: !p.locked }),
            )}
        >
          {#if p.locked}<Lock size={14} strokeWidth={1.75} />{:else}<LockOpen
              size={14}
              strokeWidth={1.75}
            />{/if}
        </button>
        <button
          class="mini"
          aria-label="{p.shown ? 'Hide' : 'Show'} {p.name}"
          aria-pressed={!p.shown}
          title={p.shown ? 'Hide' : 'Show'}
          onclick={() =>
            void desk.change(
              p.shown ? 'Hide the picture' : 'Show the picture',
              setPicture(p.id, { shown: !p.shown }),
            )}
        >
          {#if p.shown}<Eye size={15} strokeWidth={1.75} />{:else}<EyeOff size={15} strokeWidth={1.75} />{/if}
        </button>
      </div>
    {/each}
  </div>
  <Steps {desk} />
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
  .list {
    position: relative;
    flex: 1;
    min-height: 0;
    overflow: hidden auto;
  }
  .tall {
    position: relative;
  }
  .row,
  .picture {
    display: flex;
    align-items: center;
    gap: 4px;
    height: 38px;
    padding-right: 6px;
  }
  .row {
    position: absolute;
    left: 0;
    right: 0;
    border-left: 3px solid transparent;
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
  .dim .words,
  .dim :global(svg.thumb) {
    opacity: 0.5;
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
  .fold,
  .mini,
  .ink {
    display: grid;
    flex: none;
    place-items: center;
    width: 22px;
    height: 26px;
    border-radius: 4px;
    color: var(--text);
  }
  .fold:hover,
  .mini:hover,
  .ink:hover {
    background: var(--desk);
  }
  .faint {
    color: var(--quiet);
    opacity: 0;
  }
  .row:hover .faint,
  .mini:focus-visible .faint {
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
  .pictures {
    flex: none;
    max-height: 30%;
    overflow-y: auto;
    border-top: 1px solid var(--line);
  }
  .picture {
    padding-left: 10px;
  }
  .picture .name {
    flex-direction: row;
    align-items: center;
    justify-content: flex-start;
    gap: 7px;
  }
  .picture .name :global(svg) {
    flex: none;
  }
  .picture .name[aria-pressed='false'] {
    color: var(--quiet);
  }
</style>
