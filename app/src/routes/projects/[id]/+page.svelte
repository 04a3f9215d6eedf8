<script lang="ts">
  import Desk from '$lib/columns/Desk.svelte';
  import { STEP_SET } from '$lib/steps';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

{#key data.workplace}<Desk workplace={data.workplace} steps={STEP_SET} />{/key}
