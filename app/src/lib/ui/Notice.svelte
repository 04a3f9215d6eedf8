<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { Notice } from './notice';

  let { notice, close }: { notice: Notice | null; close: () => void } = $props();

  $effect(() => {
    if (!notice || notice.tone === 'bad') return;
    const timer = setTimeout(close, notice.action ? 10_000 : 4_000);
    return () => clearTimeout(timer);
  });
</script>

<div class="notices" aria-live="polite">
  {#if notice}
    <div class="notice {notice.tone}" role={notice.tone === 'bad' ? 'alert' : 'status'}>
      <span dir="auto">{notice.text}</span>
      {#if notice.action}
        <button
          class="plain-button"
          onclick={() => {
            notice?.action?.run();
            close();
          }}>{notice.action.label}</button
        >
      {/if}
      <button class="icon-button" aria-label="Close the message" title="Close" onclick={close}
        ><X size={16} strokeWidth={1.75} /></button
      >
    </div>
  {/if}
</div>

<style>
  .notices {
    position: fixed;
    left: 50%;
    bottom: 96px;
    translate: -50% 0;
    z-index: 30;
    max-width: min(640px, 90vw);
  }
  .notice {
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 8px 8px 8px 14px;
    border: 1px solid var(--line);
    border-left: 4px solid var(--quiet);
    border-radius: 6px;
    background: var(--paper);
    color: var(--text);
    overflow-wrap: anywhere;
  }
  .notice button {
    flex: none;
    white-space: nowrap;
  }
  .good {
    border-left-color: var(--leaf);
  }
  .bad {
    border-left-color: var(--brick);
  }
</style>
