<script lang="ts">
  import Eye from '@lucide/svelte/icons/eye';
  import EyeOff from '@lucide/svelte/icons/eye-off';
  import Lock from '@lucide/svelte/icons/lock';
  import LockOpen from '@lucide/svelte/icons/lock-open';
  import Link2 from '@lucide/svelte/icons/link-2';
  import Unlink2 from '@lucide/svelte/icons/unlink-2';
  import type { RowTurn } from './stack-actions';

  // Lock, show, or bond to the picture of a row: what it says is what a press does.
  interface Props {
    what: RowTurn;
    of: {
      readonly name: string;
      readonly locked: boolean;
      readonly shown: boolean;
      readonly unmeasured?: true | undefined;
    };
    /** Locked, hidden, or left out of drift, by what it stands in. */
    inherited?: boolean;
    /** As most rows are, it is seen only where the pointer or the keyboard is. */
    faint?: boolean;
    tabindex?: number;
    turn: () => void;
  }
  let { what, of, inherited = false, faint = false, tabindex, turn }: Props = $props();
  const WAYS = {
    locked: { on: 'Lock', off: 'Unlock', icon: LockOpen, turned: Lock },
    shown: { on: 'Hide', off: 'Show', icon: Eye, turned: EyeOff },
    measured: { on: 'Leave out of drift', off: 'Measure', icon: Link2, turned: Unlink2 },
  } as const;
  const way = $derived(WAYS[what]);
  /** It is not as most rows are. */
  const turned = $derived(
    what === 'locked' ? of.locked : what === 'shown' ? !of.shown : of.unmeasured === true,
  );
  const word = $derived(turned ? way.off : way.on);
  const label = $derived(word === WAYS.measured.on ? `Leave ${of.name} out of drift` : `${word} ${of.name}`);
  const Icon = $derived(turned || inherited ? way.turned : way.icon);
</script>

<button
  class="row-switch"
  class:faint={faint && !turned && !inherited}
  {tabindex}
  aria-label={label}
  data-tip={word}
  onclick={turn}><Icon size={what === 'shown' ? 15 : 14} strokeWidth={1.75} /></button
>
