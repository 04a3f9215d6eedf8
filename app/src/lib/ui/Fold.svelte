<script lang="ts">
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import { untrack, type Snippet } from 'svelte';

  interface Props {
    title: string;
    /** Stands at the right, so that it is known without opening. */
    figure?: string;
    open?: boolean;
    /** Hears that it was opened or closed: what costs much need not be there while it is closed. */
    turned?: (open: boolean) => void;
    children: Snippet;
  }
  let { title, figure, open = false, turned, children }: Props = $props();

  // The hand opens and closes it; what is under way opens it too.
  let shown = $state(untrack(() => open));
  $effect(() => {
    if (open) shown = true;
  });
</script>

<details bind:open={shown} ontoggle={(e) => turned?.(e.currentTarget.open)}>
  <summary><ChevronRight size={15} strokeWidth={1.75} />{title}<span class="quiet">{figure}</span></summary>
  <div class="inner">{@render children()}</div>
</details>

<style>
  .inner {
    display: flex;
    flex-direction: column;
    gap: 6px;
    padding: 6px 0 4px;
  }
  summary {
    display: flex;
    align-items: center;
    gap: 4px;
    min-height: 24px;
    cursor: pointer;
  }
  summary > .quiet {
    margin-left: auto;
  }
  summary > :global(svg) {
    flex: none;
    color: var(--quiet);
    transition: rotate 100ms;
  }
  details[open] > summary > :global(svg) {
    rotate: 90deg;
  }
  @media (prefers-reduced-motion: reduce) {
    summary > :global(svg) {
      transition: none;
    }
  }
</style>
