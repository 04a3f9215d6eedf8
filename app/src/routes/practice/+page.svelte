<script lang="ts">
  import Packets from '$lib/practice/Packets.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<Packets exercises={data.exercises} />
