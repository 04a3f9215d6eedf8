<script lang="ts">
  import type { Desk } from '$lib/desk/desk.svelte';
  import Range from '$lib/ui/Range.svelte';

  let { desk }: { desk: Desk } = $props();
  const text = $derived(
    desk.looking.glass === 0
      ? 'picture'
      : desk.looking.glass === 100
        ? 'drawing'
        : desk.looking.glass === 50
          ? 'both'
          : `${desk.looking.glass}`,
  );
</script>

<section aria-label="Glass">
  <Range
    label="Glass"
    value={desk.looking.glass}
    {text}
    track="linear-gradient(to right, var(--leaf), var(--line), var(--carrot))"
    change={(v) => (desk.looking.glass = v)}
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
