<script lang="ts">
  import Answer from '$lib/practice/Answer.svelte';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
</script>

<Answer answer={data.answer} project={data.project} />
