<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Compare from './Compare.svelte';
  import Figures from './Figures.svelte';
  import Findings from './Findings.svelte';
  import GrowthFields from './replay/GrowthFields.svelte';
  import KeptCopies from './KeptCopies.svelte';
  import SmallSizes from './SmallSizes.svelte';

  let { workplace }: { workplace: Workplace } = $props();
</script>

<Compare {workplace} />
<Findings {workplace} />
<Figures {workplace} />
<section><SmallSizes {workplace} /></section>
<section><GrowthFields {workplace} /></section>
<KeptCopies {workplace} />
