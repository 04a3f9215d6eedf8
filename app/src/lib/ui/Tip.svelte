<script lang="ts">
  import { untrack } from 'svelte';
  import { Portal, Tooltip } from '@skeletonlabs/skeleton-svelte';

  /** `id` is what the control is described by. */
  let { of, text, id }: { of: HTMLElement; text: string; id: string } = $props();
  const anchor = untrack(() => of);
</script>

<Tooltip
  open
  ids={{ content: id }}
  positioning={{ placement: 'top', gutter: 6, getAnchorRect: () => anchor.getBoundingClientRect() }}
>
  <Portal>
    <Tooltip.Positioner class="tip-positioner">
      <Tooltip.Content class="tip">{text}</Tooltip.Content>
    </Tooltip.Positioner>
  </Portal>
</Tooltip>
