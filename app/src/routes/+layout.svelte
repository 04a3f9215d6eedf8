<script lang="ts">
  import '../app.css';
  import { rememberedMode } from '$lib/ui/mode.svelte';
  import Tips from '$lib/ui/Tips.svelte';

  let { children } = $props();

  $effect(() => {
    if (rememberedMode.value) document.documentElement.dataset.mode = rememberedMode.value;
    else delete document.documentElement.dataset.mode;
  });
</script>

{@render children()}
<Tips />
