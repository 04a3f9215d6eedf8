<script lang="ts" generics="T extends string">
  import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';

  interface Props {
    label: string;
    value: T;
    options: readonly (readonly [value: T, text: string])[];
    change: (value: T) => void;
  }
  let { label, value, options, change }: Props = $props();
</script>

<SegmentedControl {value} onValueChange={(d) => d.value && change(d.value as T)}>
  <SegmentedControl.Label class="sr-only">{label}</SegmentedControl.Label>
  <SegmentedControl.Control class="segments">
    {#each options as [option, text] (option)}
      <SegmentedControl.Item value={option} class="segment">
        <SegmentedControl.ItemText>{text}</SegmentedControl.ItemText>
        <SegmentedControl.ItemHiddenInput />
      </SegmentedControl.Item>
    {/each}
  </SegmentedControl.Control>
</SegmentedControl>
