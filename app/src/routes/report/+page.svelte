<script lang="ts">
  import Report from '$lib/report/Report.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<Report reports={data.reports} use={data.use} />
