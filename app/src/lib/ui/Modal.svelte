<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
  import type { Snippet } from 'svelte';

  interface Props {
    open: boolean;
    title: string;
    close: () => void;
    /** Stands at the top of the page rather than in its middle. */
    high?: boolean;
    width?: number;
    /** What has the keyboard first; the closing button when left out. */
    first?: () => HTMLElement | null;
    children: Snippet;
  }
  let { open, title, close, high = false, width = 480, first, children }: Props = $props();

  // The dialog itself hears Esc a frame after it is shown: pressed sooner, it closes all the same.
  function closeOnEscape(e: KeyboardEvent): void {
    if (open && e.key === 'Escape' && !e.isComposing && !e.defaultPrevented) close();
  }
</script>

<svelte:window onkeydown={closeOnEscape} />
<Dialog {open} initialFocusEl={first} onOpenChange={(d) => !d.open && close()}>
  <Portal>
    <Dialog.Backdrop class="modal-backdrop" />
    <Dialog.Positioner class="modal-positioner {high ? 'high' : ''}">
      <Dialog.Content class="modal-content" style="width: min({width}px, 94vw)">
        <header>
          <Dialog.Title class="modal-title">{title}</Dialog.Title>
          <Dialog.CloseTrigger class="icon-button" aria-label="Close" data-tip="Close">
            <X size={18} strokeWidth={1.75} />
          </Dialog.CloseTrigger>
        </header>
        {#if open}{@render children()}{/if}
      </Dialog.Content>
    </Dialog.Positioner>
  </Portal>
</Dialog>

<style>
  header {
    display: flex;
    justify-content: space-between;
    align-items: center;
    margin-bottom: 10px;
  }
</style>
