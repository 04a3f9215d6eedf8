<script lang="ts">
  import Eye from '@lucide/svelte/icons/eye';
  import EyeOff from '@lucide/svelte/icons/eye-off';
  import Lock from '@lucide/svelte/icons/lock';
  import LockOpen from '@lucide/svelte/icons/lock-open';

  // Lock, or show, of a row: what it says is what a press does.
  interface Props {
    what: 'locked' | 'shown';
    of: { readonly name: string; readonly locked: boolean; readonly shown: boolean };
    /** Locked, or hidden, by what it stands in. */
    inherited?: boolean;
    /** An open lock is seen only where the pointer or the keyboard is. */
    faint?: boolean;
    tabindex?: number;
    turn: () => void;
  }
  let { what, of, inherited = false, faint = false, tabindex, turn }: Props = $props();
  const word = $derived(what === 'locked' ? (of.locked ? 'Unlock' : 'Lock') : of.shown ? 'Hide' : 'Show');
  const Icon = $derived(
    what === 'locked' ? (of.locked || inherited ? Lock : LockOpen) : of.shown && !inherited ? Eye : EyeOff,
  );
</script>

<button
  class="row-switch"
  class:faint={faint && what === 'locked' && !of.locked && !inherited}
  {tabindex}
  aria-label="{word} {of.name}"
  data-tip={word}
  onclick={turn}><Icon size={what === 'locked' ? 14 : 15} strokeWidth={1.75} /></button
>
