<script lang="ts">
  import { Switch } from '@skeletonlabs/skeleton-svelte';

  let { label, on, change }: { label: string; on: boolean; change: (on: boolean) => void } = $props();
</script>

<Switch checked={on} onCheckedChange={(d) => change(d.checked)} class="toggle">
  <Switch.Label>{label}</Switch.Label>
  <Switch.Control class="toggle-control"><Switch.Thumb class="toggle-thumb" /></Switch.Control>
  <Switch.HiddenInput />
</Switch>
