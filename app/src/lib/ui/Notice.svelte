<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { createToaster, Toast } from '@skeletonlabs/skeleton-svelte';
  import { tick, untrack } from 'svelte';
  import type { Notice } from './notice';

  // The newest notice only: what was said before has been overtaken.
  let { notice, close }: { notice: Notice | null; close: () => void } = $props();

  const STAYS_MS = { plain: 4_000, withAction: 10_000 };
  // Its own hot key would take a letter from the desk; Tab comes to it last.
  const toaster = createToaster({ placement: 'bottom', removeDelay: 0, max: 1, hotkey: ['F8'] });
  const TYPES = { plain: 'info', good: 'success', bad: 'error' } as const;

  $effect(() => {
    if (!notice) return untrack(() => toaster.remove());
    const { text, tone, action } = notice;
    // The group hears of it only once it is there itself.
    void tick().then(() => {
      toaster.remove();
      toaster.create({
        description: text,
        type: TYPES[tone],
        duration: tone === 'bad' ? Infinity : action ? STAYS_MS.withAction : STAYS_MS.plain,
        ...(action ? { action: { label: action.label, onClick: action.run } } : {}),
        onStatusChange: (d) => d.status === 'unmounted' && notice?.text === text && close(),
      });
    });
  });
</script>

<Toast.Group {toaster} class="notices" aria-label="Messages" aria-live="off">
  {#snippet children(toast)}
    <Toast
      {toast}
      class="notice"
      data-tone={toast.type}
      tabindex={-1}
      role={toast.type === 'error' ? 'alert' : 'status'}
    >
      <Toast.Description dir="auto">{toast.description}</Toast.Description>
      {#if toast.action}
        <Toast.ActionTrigger class="plain-button">{toast.action.label}</Toast.ActionTrigger>
      {/if}
      <Toast.CloseTrigger class="icon-button" aria-label="Close the message" data-tip="Close">
        <X size={16} strokeWidth={1.75} />
      </Toast.CloseTrigger>
    </Toast>
  {/snippet}
</Toast.Group>
