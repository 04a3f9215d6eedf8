<script lang="ts">
  import type { Desk } from '$lib/desk/desk.svelte';
  import Range from '$lib/ui/Range.svelte';

  let { desk }: { desk: Desk } = $props();
  const text = $derived(
    desk.glass === 0
      ? 'picture'
      : desk.glass === 100
        ? 'drawing'
        : desk.glass === 50
          ? 'both'
          : `${desk.glass}`,
  );
</script>

<section aria-label="Glass">
  <Range
    label="Glass"
    value={desk.glass}
    {text}
    track="linear-gradient(to right, var(--leaf), var(--line), var(--carrot))"
    change={(v) => (desk.glass = v)}
  />
  <p class="ends quiet"><span>picture</span><span>drawing</span></p>
</section>

<style>
  .ends {
    display: flex;
    justify-content: space-between;
    margin-top: -3px;
    font-size: 12px;
  }
</style>
