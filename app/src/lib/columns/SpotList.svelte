<script lang="ts">
  import EyeOff from '@lucide/svelte/icons/eye-off';
  import Lock from '@lucide/svelte/icons/lock';
  import { Popover, Portal } from '@skeletonlabs/skeleton-svelte';
  import { restack, setNode, type Recipe } from '@mirrot/core';
  import ArrowUpToLine from '@lucide/svelte/icons/arrow-up-to-line';
  import { chooseShapes } from '$lib/desk/choice';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { onMount, tick, untrack } from 'svelte';
  import { SpotDrags } from './spot-drags.svelte';
  import Thumbnail from './Thumbnail.svelte';

  // Every shape at a spot of the bed, to choose from, with the few actions that fit. It stands beside the spot, never over it.
  let { desk, bed }: { desk: Desk; bed: HTMLElement | undefined } = $props();
  const BESIDE_PX = 14;
  let list: HTMLElement | undefined = $state();

  const listed = $derived(desk.pointing.listed);
  const drags = untrack(() => new SpotDrags(desk));
  onMount(() => drags.begin());
  const shapes = $derived(drags.sorted(listed?.shapes ?? []).flatMap((id) => desk.shapeOf(id) ?? []));

  $effect(() => list?.querySelector<HTMLElement>('.choose')?.focus());

  function close(): void {
    if (!desk.pointing.listed) return;
    desk.pointing.listed = null;
    bed?.focus({ preventScroll: true });
  }
  function choose(id: string): void {
    desk.choose(chooseShapes([id], desk.step === 'refine' ? 'path' : 'shape'));
    close();
  }
  function act(label: string, recipe: Recipe): void {
    desk.change(label, recipe);
    close();
  }
  const buttonOf = (id: string | undefined): HTMLElement | null | undefined =>
    list?.querySelector<HTMLElement>(`[data-shape="${id}"] .choose`);
  function keydown(e: KeyboardEvent): void {
    const buttons = [...(list?.querySelectorAll<HTMLElement>('.choose') ?? [])];
    const at = buttons.findIndex((b) => b.parentElement?.contains(document.activeElement));
    const step = { ArrowDown: 1, ArrowUp: -1 }[e.key];
    if (!step) return;
    if (e.ctrlKey || e.metaKey) {
      const [own, other] = [shapes[at], shapes[at + step]];
      if (own && other) drags.put(own.id, other.id, step > 0 ? 'below' : 'above');
      // A row that is moved in the page loses the keyboard.
      void tick().then(() => buttonOf(own?.id)?.focus());
    } else buttons[(at + step + buttons.length) % buttons.length]?.focus();
    e.preventDefault();
    e.stopPropagation();
  }
</script>

{#if listed && bed}
  {#key listed}
    <Popover
      open
      onOpenChange={(d) => !d.open && close()}
      autoFocus={false}
      positioning={{
        placement: 'right-start',
        gutter: BESIDE_PX,
        getAnchorRect: () => {
          const { left, top } = bed.getBoundingClientRect();
          return { x: left + listed.at.x, y: top + listed.at.y, width: 0, height: 0 };
        },
      }}
    >
      <Portal>
        <Popover.Positioner class="spot-positioner">
          <Popover.Content class="spot-list">
            <Popover.Title class="sr-only">What lies here, topmost first</Popover.Title>
            <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
            <ul bind:this={list} aria-label="What lies here, topmost first" onkeydown={keydown}>
              {#each shapes as shape (shape.id)}
                {@const side = drags.drop?.row === shape.id ? drags.drop.side : null}
                <li
                  data-shape={shape.id}
                  class:lands-above={side === 'above'}
                  class:lands-below={side === 'below'}
                  {@attach drags.attach?.(shape.id)}
                >
                  <button class="choose" dir="auto" onclick={() => choose(shape.id)}>
                    <Thumbnail {desk} node={shape} place="spot" /><span>{shape.name}</span>
                  </button>
                  <button
                    class="icon-button"
                    aria-label="Bring {shape.name} to the top"
                    data-tip="To the top"
                    onclick={() => act('Move to the top', restack([shape.id], 'top'))}
                    ><ArrowUpToLine size={15} strokeWidth={1.75} /></button
                  >
                  <button
                    class="icon-button"
                    aria-label="Hide {shape.name}"
                    data-tip="Hide"
                    onclick={() => act('Hide', setNode(shape.id, { shown: false }))}
                    ><EyeOff size={15} strokeWidth={1.75} /></button
                  >
                  <button
                    class="icon-button"
                    aria-label="Lock {shape.name}"
                    data-tip="Lock"
                    onclick={() => act('Lock', setNode(shape.id, { locked: true }))}
                    ><Lock size={15} strokeWidth={1.75} /></button
                  >
                </li>
              {/each}
            </ul>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover>
  {/key}
{/if}

<style>
  ul {
    width: 236px;
    max-height: 298px;
    margin: 0;
    padding: 4px;
    overflow-y: auto;
    list-style: none;
  }
  li {
    display: flex;
    align-items: center;
    height: 36px;
  }
  .lands-above {
    box-shadow: 0 -2px 0 var(--carrot);
  }
  .lands-below {
    box-shadow: 0 2px 0 var(--carrot);
  }
  .choose {
    display: flex;
    flex: 1;
    align-items: center;
    gap: 8px;
    min-width: 0;
    height: 34px;
    padding: 0 4px;
    border-radius: 4px;
    text-align: start;
  }
  .choose span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .choose:hover,
  .choose:focus-visible {
    background: var(--ledge);
  }
</style>
