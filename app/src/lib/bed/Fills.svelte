<script lang="ts">
  import { paintList } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { View } from '$lib/desk/view';
  import Layer from './Layer.svelte';
  import Painted from './Painted.svelte';

  let { desk, view, margin }: { desk: Desk; view: View; margin: number } = $props();

  const seen = $derived(desk.looking.seen);
  const parts = $derived(paintList(desk.art));
  const { sheet } = $derived(desk.art);
  // What is proved, exported or peeked at is the whole drawing.
  const whole = $derived(
    desk.step === 'proof' || desk.step === 'export' || desk.pointing.held.has('shift+q'),
  );
  const focus = $derived(whole ? null : desk.choosing.focus);
  // What is blended is blended with the ground too, where no picture lies between.
  const ground = $derived(seen.picture === 0 ? sheet.ground : null);
</script>

<Layer {desk} {view} {margin}>
  <g class="fills" opacity={seen.fills} style:display={seen.fills > 0 ? null : 'none'}>
    {#if ground}<rect width={sheet.width} height={sheet.height} fill={ground} />{/if}
    <g class:faded={focus !== null}>
      <Painted {parts} place="bed" seeing={desk.picture.seeing} />
    </g>
    {#if focus}
      <Painted parts={paintList(desk.art, new Set([focus.id]))} place="focus" seeing={desk.picture.seeing} />
    {/if}
  </g>
</Layer>

<style>
  .faded {
    opacity: 0.25;
  }
</style>
