<script lang="ts">
  import { untrack, type Snippet } from 'svelte';
  import type { Desk } from '$lib/desk/desk.svelte';
  import { createFingers } from './fingers';
  import { lookByWheel } from './wheel';

  // What stands in the bed's place and is only looked at: wheel, drag, fingers and keys move the bed's own view.
  let { desk, children }: { desk: Desk; children: Snippet } = $props();
  const { looking } = $derived(desk);
  let area: HTMLElement | undefined = $state();
  let dragged: { readonly id: number; readonly x: number; readonly y: number } | null = null;
  const fingers = untrack(() => createFingers(desk, () => area!.getBoundingClientRect()));

  function wheel(e: WheelEvent): void {
    e.preventDefault();
    const box = area!.getBoundingClientRect();
    lookByWheel(looking, e, { x: e.clientX - box.left, y: e.clientY - box.top });
  }
  function down(e: PointerEvent & { currentTarget: HTMLElement }): void {
    e.currentTarget.setPointerCapture(e.pointerId);
    const isSecond = fingers.down(e);
    if (isSecond) dragged = null;
    else if (!dragged && !fingers.spent) dragged = { id: e.pointerId, x: e.clientX, y: e.clientY };
  }
  function move(e: PointerEvent): void {
    if (fingers.move(e) || dragged?.id !== e.pointerId) return;
    looking.pan(e.clientX - dragged.x, e.clientY - dragged.y);
    dragged = { id: e.pointerId, x: e.clientX, y: e.clientY };
  }
  function up(e: PointerEvent): void {
    fingers.up(e);
    if (dragged?.id === e.pointerId) dragged = null;
  }
  $effect(() => {
    // Not passive: the page must not scroll or zoom along.
    const here = area;
    here?.addEventListener('wheel', wheel, { passive: false });
    return () => here?.removeEventListener('wheel', wheel);
  });
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  bind:this={area}
  class="area"
  onpointerdown={down}
  onpointermove={move}
  onpointerup={up}
  onpointercancel={up}
>
  {@render children()}
</div>

<style>
  .area {
    position: absolute;
    inset: 0;
    overflow: hidden;
    cursor: grab;
    touch-action: none;
  }
  .area:active {
    cursor: grabbing;
  }
</style>
