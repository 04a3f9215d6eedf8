<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Compare from './Compare.svelte';
  import Findings from './Findings.svelte';
  import KeptCopies from './KeptCopies.svelte';
  import SmallSizes from './SmallSizes.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const figures = $derived(workplace.desk.drawing.figures);
</script>

<section>
  <h3 class="panel-title">The drawing</h3>
  <dl>
    <dt>shapes</dt>
    <dd>{figures.shapes}</dd>
    <dt>paths</dt>
    <dd>{figures.paths}</dd>
    <dt>anchors</dt>
    <dd>{figures.anchors}</dd>
    <dt>without fill or stroke</dt>
    <dd>{figures.shapes - figures.painted}</dd>
  </dl>
  <SmallSizes {workplace} />
</section>
<Compare {workplace} />
<Findings {workplace} />
<KeptCopies {workplace} />

<style>
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 2px 10px;
    margin-bottom: 8px;
  }
  dt {
    color: var(--quiet);
  }
</style>
