<script lang="ts">
  import { Slider } from '@skeletonlabs/skeleton-svelte';

  interface Props {
    label: string;
    value: number;
    min?: number;
    max?: number;
    step?: number;
    /** What stands at the right of the label; the value itself when left out. */
    text?: string;
    /** CSS background of the track, when it shows something itself. */
    track?: string;
    change: (value: number) => void;
    /** The drag has ended. */
    settled?: (value: number) => void;
  }
  let { label, value, min = 0, max = 100, step = 1, text, track, change, settled }: Props = $props();
</script>

<Slider
  value={[value]}
  {min}
  {max}
  {step}
  onValueChange={(d) => d.value[0] !== undefined && d.value[0] !== value && change(d.value[0])}
  onValueChangeEnd={(d) => d.value[0] !== undefined && settled?.(d.value[0])}
>
  <div class="heading">
    <Slider.Label>{label}</Slider.Label>
    <span class="quiet">{text ?? value}</span>
  </div>
  <Slider.Control class="range-control">
    <Slider.Track class="range-track" style="background: {track ?? 'var(--line)'}">
      {#if !track}<Slider.Range class="range-filled" />{/if}
    </Slider.Track>
    <Slider.Thumb index={0} class="range-thumb"><Slider.HiddenInput /></Slider.Thumb>
  </Slider.Control>
</Slider>

<style>
  .heading {
    display: flex;
    justify-content: space-between;
    font-size: 13px;
  }
</style>
