<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import NextFill from '../colour/NextFill.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const layer = $derived(desk.art.layers.find((l) => l.id === desk.drawingLayer));
</script>

<NextFill {desk} />
<p class="quiet" dir="auto">
  New paths go on {layer ? layer.name : 'no layer: all are hidden or locked'}, in tracing ink only.
</p>
{#if desk.live}
  <p>
    Click for a corner, drag for a curve. A click on the first anchor closes.
    {#if desk.carryOnce}<strong>Carry is {desk.carry ? 'off' : 'on'} for the next anchor.</strong>{/if}
  </p>
{:else}
  <p>Press on the outline to start a path: click where it has a corner, drag where it turns softly.</p>
{/if}
<p class="quiet">
  Carry {desk.carry
    ? 'on: a curved anchor’s leaving handle shapes the next segment.'
    : 'off: the next segment starts straight.'}
</p>
