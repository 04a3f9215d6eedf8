<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { STEP_NAMES } from '$lib/desk/steps';
  import { stepSet } from './step-set';
  import Modal from '$lib/ui/Modal.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';

  let { workplace }: { workplace: Workplace } = $props();

  const { commands } = stepSet();
  /** What is held or done with the pointer and so is no command. */
  const HELD: readonly (readonly [string, string])[] = [
    ['Q held', 'Peek: the bare picture'],
    ['Shift+Q held', 'Peek: the bare drawing'],
    ['A held in Block in', 'Shape what lies under the pointer'],
    ['T held in Refine', 'Add anchors'],
    ['C held, C tapped', 'Draw freely; switch snapping'],
    ['D held', 'Sample a colour; drag for a disc'],
    ['Space held', 'Drag the sheet'],
    ['Mod+wheel', 'Zoom about the pointer'],
    ['Alt or J in a drag', 'Only the leaving handle turns'],
    ['Shift in a drag', '45° steps, or along an axis'],
    ['Esc', 'One step back: drag, offer, path, choice'],
    ['Enter', 'Take the offer; end the path'],
    ['Arrows', 'Nudge what is chosen; with nothing chosen, or after a full stop, move the crosshair'],
    ['Enter at the crosshair', 'Press there; with Shift press and hold, Enter again lets go'],
    ['Menu key', 'List what lies at the crosshair'],
  ];
  const groups = $derived(
    [
      ['Everywhere', commands.filter((c) => c.keys && !c.steps)] as const,
      ...(['block-in', 'refine'] as const).map(
        (step) => [STEP_NAMES[step], commands.filter((c) => c.keys && c.steps?.includes(step))] as const,
      ),
    ].map(([name, commands]) => [name, commands.filter((c) => !/^open-|^cross-/.test(c.id))] as const),
  );
  const shown = (k: string): string => k.replace('Mod', 'Ctrl');
</script>

<Modal open={workplace.dialog === 'keys'} title="Keys" close={() => (workplace.dialog = null)} width={860}>
  <div class="single">
    <Toggle
      label="Keys without Ctrl work"
      on={workplace.singleKeys}
      change={(on) => workplace.turnSingleKeys(on)}
    />
  </div>
  <div class="sheet">
    <section>
      <h3>Held, and with the pointer</h3>
      {#each HELD as [keys, what] (keys)}<p><kbd class="key">{shown(keys)}</kbd> {what}</p>{/each}
      <p><kbd class="key">1 – 6</kbd> Steps</p>
      <p><kbd class="key">Arrows</kbd> Nudge by a pixel; Shift ten, Alt a tenth</p>
    </section>
    {#each groups as [name, commands] (name)}
      <section>
        <h3>{name}</h3>
        {#each commands as c (c.id)}
          <p>
            {#each c.keys ?? [] as k (k)}<kbd class="key">{shown(k)}</kbd>
            {/each}{c.title}
          </p>
        {/each}
      </section>
    {/each}
  </div>
</Modal>

<style>
  .single {
    width: 240px;
    margin-bottom: 10px;
  }
  .sheet {
    columns: 3 220px;
    column-gap: 24px;
    font-size: 13px;
  }
  section {
    margin-bottom: 14px;
  }
  h3 {
    break-after: avoid;
    font-size: 14px;
  }
  p {
    margin: 3px 0;
    break-inside: avoid;
  }
  kbd {
    margin-right: 5px;
    font-family: inherit;
  }
</style>
