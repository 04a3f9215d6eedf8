<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Blink from './Blink.svelte';
  import Findings from './Findings.svelte';
  import KeptCopies from './KeptCopies.svelte';
  import SmallSizes from './SmallSizes.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const { looking } = $derived(workplace.desk);
  /** Upright, through the middle of the sheet: the picture on its right, the drawing on its left. */
  function wipe(on: boolean): void {
    const { width, height } = workplace.desk.art.sheet;
    looking.wipe = on ? { at: { x: width / 2, y: height / 2 }, angle: Math.PI / 2 } : null;
  }
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
  <p class="quiet">Hold Q for the bare picture, Shift+Q for the bare drawing.</p>
  <Toggle label="Wipe" on={looking.wipe !== null} change={wipe} />
  <Blink desk={workplace.desk} />
  <SmallSizes {workplace} />
</section>
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
