<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { PANELS } from '$lib/steps/panels';
  import { STEP_NAMES } from '$lib/steps/everywhere';
  import Glass from './Glass.svelte';
  import Loupe from './Loupe.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const Panel = $derived(PANELS[desk.step]);
</script>

<aside class="eye" aria-label="Eye">
  {#if desk.habits.loupe}<Loupe {desk} />{/if}
  <Glass {desk} />
  <div class="panel" role="group" aria-label="{STEP_NAMES[desk.step]} panel"><Panel {workplace} /></div>
</aside>

<style>
  .eye {
    /* Inputs hidden in switches are laid out within it: else they would make the page longer than the window. */
    position: relative;
    grid-area: eye;
    display: flex;
    flex-direction: column;
    gap: 10px;
    width: 256px;
    min-height: 0;
    padding: 12px;
    overflow-y: auto;
    border-left: 1px solid var(--line);
    background: var(--paper);
  }
  .panel {
    display: flex;
    flex-direction: column;
    gap: 10px;
    padding-top: 10px;
    border-top: 1px solid var(--line);
  }
</style>
