<script lang="ts">
  import { onMount } from 'svelte';
  import '../app.css';
  import { rememberedMode } from '$lib/ui/mode.svelte';
  import Tips from '$lib/ui/Tips.svelte';

  let { children } = $props();

  $effect(() => {
    if (rememberedMode.value) document.documentElement.dataset.mode = rememberedMode.value;
    else delete document.documentElement.dataset.mode;
  });
  // The server's page is seen before its script has come; from here on it answers.
  onMount(() => void (document.documentElement.dataset.answers = ''));
</script>

{@render children()}
<Tips />
