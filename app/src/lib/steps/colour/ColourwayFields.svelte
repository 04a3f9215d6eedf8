<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';

  // Other colours for the whole palette; what they need comes when it is opened.
  let { workplace }: { workplace: Workplace } = $props();
  const kept = $derived(workplace.desk.art.colourways.length);
  let opened = $state(false);
</script>

{#if workplace.desk.art.chips.length > 0}
  <Fold title="Colourways" figure={kept > 0 ? `${kept} kept` : ''} turned={(open) => (opened = open)}>
    {#if opened}
      {#await import('./Colourways.svelte') then { default: Colourways }}
        <Colourways {workplace} />
      {:catch}
        <p class="quiet">This part of the page could not be fetched. Reload the page; nothing is lost.</p>
      {/await}
    {/if}
  </Fold>
{/if}
