<script lang="ts">
  import Shelf from '$lib/shelf/Shelf.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<Shelf projects={data.projects} away={data.away} shipped={data.shipped} />
