<script lang="ts">
  import type { Extent, Side } from '@mirrot/core';
  import { passingOffer } from '$lib/desk/passing';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import CommandButton from './CommandButton.svelte';
  import {
    arrangingRecipe,
    flipping,
    frameOf,
    matching,
    nodesToArrange,
    placing,
    spreading,
    type Against,
    type Arranging,
  } from '$lib/edits/arranging';
  import Fold from '$lib/ui/Fold.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';

  // A small board like the sheet: pressed at a place, what is chosen goes there; shown while the pointer is over it.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);

  let against: Against = $state('choice');
  let extent: Extent = $state('outline');
  const nodes = $derived(nodesToArrange(desk));
  const stays = $derived(nodes.find((n) => n.id === desk.choosing.stays) ?? null);
  const several = $derived(nodes.length > 1);
  /** What the board stands for now. */
  const board = $derived.by(() => {
    const frame = frameOf(desk, against);
    return frame === 'sheet' ? 'the sheet' : frame === 'choice' ? 'all that is chosen' : (stays?.name ?? '');
  });

  const SIDES: readonly (readonly [Side, Side, string])[] = [
    [0, 0, 'top left corner'],
    [0.5, 0, 'top'],
    [1, 0, 'top right corner'],
    [0, 0.5, 'left'],
    [0.5, 0.5, 'middle'],
    [1, 0.5, 'right'],
    [0, 1, 'bottom left corner'],
    [0.5, 1, 'bottom'],
    [1, 1, 'bottom right corner'],
  ];
  /** A side moves one way only; a corner and the middle both. */
  const at = (across: Side, down: Side): Arranging =>
    placing({
      across: across === 0.5 && down !== 0.5 ? null : across,
      down: down === 0.5 && across !== 0.5 ? null : down,
    });

  const passing = $derived(passingOffer(desk, 'arrange'));
  const preview = (what: Arranging): void =>
    passing.show(what.label, arrangingRecipe(desk, what, against, extent));
  const leave = (): void => passing.leave();
  function take(what: Arranging): void {
    const { choice } = desk;
    desk.change(what.label, arrangingRecipe(desk, what, against, extent), { choice });
  }
  $effect(() => {
    void desk.choice;
    return () => passing.leaveAfter();
  });
</script>

{#snippet way(what: Arranging, words: string)}
  <button
    class="plain-button"
    onpointerenter={() => preview(what)}
    onpointerleave={leave}
    onclick={() => take(what)}>{words}</button
  >
{/snippet}

{#if nodes.length > 0}
  <div class="arrange">
    <Fold title="Arrange" figure={`${nodes.length}`}>
      <div class="whole">
        <div class="board" role="group" aria-label="Put what is chosen at a place of {board}">
          {#each SIDES as [across, down, words] (words)}
            <button
              aria-label={words}
              onpointerenter={() => preview(at(across, down))}
              onpointerleave={leave}
              onclick={() => take(at(across, down))}
              ><i
                style:left="{across * 100}%"
                style:top="{down * 100}%"
                style:translate="{-across * 100}% {-down * 100}%"
              ></i></button
            >
          {/each}
        </div>
        <div class="words">
          {@render way(placing({ across: 0.5, down: null }), 'middle across')}
          {@render way(placing({ across: null, down: 0.5 }), 'middle down')}
        </div>
      </div>
      {#if several}
        <label class="field">
          <span class="quiet">by</span>
          <select
            aria-label="Arrange by"
            value={stays?.id ?? against}
            onchange={(e) => {
              const { value } = e.currentTarget;
              against = value === 'sheet' ? 'sheet' : 'choice';
              desk.choosing.stays = nodes.some((n) => n.id === value) ? value : null;
            }}
          >
            <option value="choice">all that is chosen</option>
            <option value="sheet">the sheet</option>
            {#each nodes.slice(0, 50) as node (node.id)}<option value={node.id}
                >{node.name}, which stays</option
              >{/each}
          </select>
        </label>
      {/if}
      <div class="button-row">
        {#if nodes.length > 2}
          {@render way(spreading('across'), 'even gaps across')}
          {@render way(spreading('down'), 'even gaps down')}
        {/if}
        {@render way(flipping('across'), 'flip across')}
        {@render way(flipping('down'), 'flip down')}
        {#if stays}
          {@render way(matching('across'), 'same width')}
          {@render way(matching('down'), 'same height')}
        {/if}
      </div>
      <div class="button-row">
        <CommandButton {workplace} id="go-under" />
        <CommandButton {workplace} id="take-look" />
      </div>
      <Toggle
        label="With line weight"
        on={extent === 'painted'}
        change={(on) => (extent = on ? 'painted' : 'outline')}
      />
    </Fold>
  </div>
{/if}

<style>
  .arrange {
    flex: none;
    max-height: 46%;
    padding: 6px 12px;
    overflow-y: auto;
    border-top: 1px solid var(--line);
  }
  .whole {
    display: flex;
    gap: 8px;
  }
  .board {
    display: grid;
    flex: none;
    grid-template-columns: repeat(3, 26px);
    grid-auto-rows: 26px;
    align-self: start;
    border: 1px solid var(--quiet);
    background: #fffdf6;
  }
  .board button {
    position: relative;
  }
  .board i {
    position: absolute;
    width: 9px;
    height: 9px;
    background: #c9bfa9;
  }
  .board button:hover i,
  .board button:focus-visible i {
    background: #d4561c;
  }
  .words {
    display: flex;
    flex: 1;
    flex-direction: column;
    gap: 3px;
    min-width: 0;
  }
  .words :global(button),
  .button-row :global(button) {
    justify-content: flex-start;
    min-height: 26px;
    padding: 0 6px;
    font-size: 12.5px;
  }
</style>
