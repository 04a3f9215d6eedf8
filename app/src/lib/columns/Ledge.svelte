<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { LEDGE } from '$lib/steps/commands';
  import { STEP_NAMES } from '$lib/steps/everywhere';
  import CommandButton from './CommandButton.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const step = $derived(workplace.desk.step);
</script>

<div class="ledge" role="toolbar" aria-label="What {STEP_NAMES[step]} does">
  {#each LEDGE[step] as id, i (id ?? i)}
    {#if id}<CommandButton {workplace} {id} />{:else}<span class="gap"></span>{/if}
  {/each}
</div>

<style>
  .ledge {
    grid-area: ledge;
    display: flex;
    align-items: center;
    gap: 4px;
    height: 60px;
    padding: 0 12px;
    overflow-x: auto;
    border-top: 1px solid var(--line);
    background: var(--ledge);
  }
  .gap {
    flex: none;
    width: 1px;
    height: 30px;
    margin: 0 3px;
    background: var(--line);
  }
</style>
