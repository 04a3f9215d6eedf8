<script lang="ts">
  import { onMount } from 'svelte';
  import { page } from '$app/state';
  import Desk from '$lib/columns/Desk.svelte';
  import { REPLAY_HASH } from '$lib/practice/api';
  import { STEP_SET } from '$lib/steps';
  import type { PageProps } from './$types';

  let { data }: PageProps = $props();
  onMount(() => {
    if (page.state.said) data.workplace.say(page.state.said);
    if (page.url.hash === REPLAY_HASH) {
      data.workplace.desk.open('proof');
      data.workplace.replayShown = true;
    }
  });
</script>

{#key data.workplace}<Desk workplace={data.workplace} steps={STEP_SET} />{/key}
