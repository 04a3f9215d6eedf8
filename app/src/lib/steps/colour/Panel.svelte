<script lang="ts">
  import { currentGradient, currentPaint, kindOf, setKind, type PaintKind } from '$lib/edits/painting';
  import { receiverInWords } from '$lib/desk/receivers';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Range from '$lib/ui/Range.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import { MOST_RADIUS } from '$lib/bed/sampling';
  import ColourField from './ColourField.svelte';
  import ColourwayFields from './ColourwayFields.svelte';
  import GradientFields from './GradientFields.svelte';
  import GroundFields from './GroundFields.svelte';
  import LineFields from './LineFields.svelte';
  import NextFill from './NextFill.svelte';
  import PaletteFields from './PaletteFields.svelte';
  import StaleTones from './StaleTones.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const shape = $derived(desk.choosing.receivedShape);
  const kind = $derived(kindOf(currentPaint(desk)));
  const KINDS = [
    ['none', 'none'],
    ['flat', 'flat'],
    ['linear', 'linear'],
    ['radial', 'radial'],
  ] as const satisfies readonly (readonly [PaintKind, string])[];
</script>

<h3 class="panel-title">Colour <span dir="auto">{receiverInWords(desk)}</span></h3>
<Segments
  label="What receives colours"
  value={desk.colouring.receiving}
  options={[
    ['fill', 'fill'],
    ['stroke', 'stroke'],
  ] as const}
  change={(v) => (desk.colouring.receiving = v)}
/>
{#if shape}
  <Segments
    label="How it is painted"
    value={kind}
    options={KINDS}
    change={(v) => v !== kind && setKind(desk, v)}
  />
  {#if currentGradient(desk)}<GradientFields {workplace} />{/if}
{/if}

<!-- Of a shape that has been shaped since, nothing is known any more. -->
{#if shape && desk.colouring.tone?.shape.id === shape.id && desk.colouring.tone.shape.paths === shape.paths}
  {#await import('./ToneFields.svelte') then { default: ToneFields }}
    <ToneFields {workplace} />
  {:catch}<!-- the offer itself stands above the bed -->{/await}
{/if}
<StaleTones {workplace} />
<ColourField {desk} />

{#if desk.colouring.sampling}
  <p class="quiet">
    {desk.colouring.sampling === 'pixel'
      ? 'Click the picture for one pixel’s colour, a fill or line for its exact colour.'
      : 'Press for the centre, drag the radius, release takes the middle value. The wheel sets the radius for a click.'}
  </p>
  {#if desk.colouring.sampling === 'disc'}
    <Range
      label="Disc for a click"
      value={desk.colouring.discRadius}
      min={1}
      max={MOST_RADIUS}
      text="{desk.colouring.discRadius} px radius"
      change={(v) => (desk.colouring.discRadius = v)}
    />
  {/if}
{/if}
{#if desk.colouring.brush}
  <NextFill {desk} />
  <p class="quiet">Press a shape, or drag across several: each gets this fill. Esc puts the brush away.</p>
{/if}
<LineFields {workplace} />
<PaletteFields {workplace} />
<ColourwayFields {workplace} />
<GroundFields {workplace} />
