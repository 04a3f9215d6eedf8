<script lang="ts">
  import Desk from '$lib/columns/Desk.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

{#key data.workplace}<Desk workplace={data.workplace} />{/key}
