<script lang="ts">
  import { onMount, type Component } from 'svelte';
  import type { DialogName, Workplace } from '$lib/desk/workplace.svelte';
  import { whenIdle } from '$lib/ui/when-idle';
  import { stepSet, type Later } from './step-set';

  // Dialogs come when they are first wanted, and stay: closed, they hold nothing.
  let { workplace }: { workplace: Workplace } = $props();
  const OWN: Readonly<Partial<Record<DialogName, Later>>> = {
    finder: () => import('./Finder.svelte'),
    keys: () => import('./KeysSheet.svelte'),
    'set-aside': () => import('./SetAsideDialog.svelte'),
  };
  const from = { ...stepSet().dialogs, ...OWN };
  let there: readonly (readonly [DialogName, Component<{ workplace: Workplace }>])[] = $state.raw([]);

  // The finder is typed into at once: it is fetched while nothing else is to be done.
  onMount(() => whenIdle(() => void OWN.finder?.().catch(() => {})));
  $effect(() => {
    const name = workplace.dialogShown;
    const later = name && from[name];
    if (!later || there.some(([known]) => known === name)) return;
    let wanted = true;
    later()
      .then((module) => wanted && (there = [...there, [name, module.default]]))
      .catch(() => {
        workplace.dialog = null;
        workplace.say('This part of the page could not be fetched. Reload the page; nothing is lost.', 'bad');
      });
    return () => (wanted = false);
  });

  // A dialog that is still being fetched is given up by Esc; one that is there hears it by itself.
  function giveUp(e: KeyboardEvent): void {
    const name = workplace.dialog;
    if (e.key === 'Escape' && name && !there.some(([known]) => known === name)) workplace.dialog = null;
  }
</script>

<svelte:window onkeydown={giveUp} />
{#each there as [name, Dialog] (name)}<Dialog {workplace} />{/each}
