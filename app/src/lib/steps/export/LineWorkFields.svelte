<script lang="ts">
  import { fromPx, type LineUse, type LineWork } from '@mirrot/core';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import LengthField from '$lib/ui/LengthField.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';

  // What is done to the lines of a file before they are written.
  let { workplace }: { workplace: Workplace } = $props();
  const out = $derived(workplace.exporting);
  const lines = $derived(out.lines);
  const { unit } = $derived(workplace.desk.art.sheet);
  const anchors = $derived(workplace.lineMaking.made?.anchors);
  const layers = $derived([...workplace.desk.art.layers].reverse());
  const set = (change: Partial<LineWork>): void => void (out.lines = { ...lines, ...change });
  /** The widest margin and coarsest tolerance that can be asked for, sheet pixels. */
  const MOST_PX = 1000;

  const USES: readonly (readonly [LineUse | 'none' | 'own', string])[] = $derived([
    ['own', out.format === 'plt' && out.machine.tool === 'knife' ? 'as the others' : 'a pen of its own'],
    ['draw', 'draw'],
    ['score', 'score'],
    ['cut', 'cut'],
    ['none', 'leave out'],
  ]);
  function use(layer: string, how: string): void {
    const { [layer]: _, ...uses } = lines.uses;
    set({ uses: how === 'own' ? uses : { ...uses, [layer]: how as LineUse | 'none' } });
  }
  const used = $derived(layers.filter(({ id }) => lines.uses[id]).length);
</script>

<Toggle label="Only what is seen" on={lines.seen} change={(seen) => set({ seen })} />
<Toggle label="Lines as heavy as drawn" on={lines.weighted} change={(weighted) => set({ weighted })} />
<Toggle label="Left for right" on={lines.mirrored} change={(mirrored) => set({ mirrored })} />
<Toggle label="Marks to lay it by" on={lines.marks} change={(marks) => set({ marks })} />
<LengthField
  {unit}
  label="thin out to"
  name="Thin out the lines to"
  value={lines.thinned}
  least={0}
  most={fromPx(MOST_PX, unit)}
  change={(thinned) => set({ thinned })}
/>
{#if lines.thinned > 0 && anchors}
  <p class="quiet" aria-live="polite">{anchors.before} anchors, {anchors.after} after</p>
{/if}
<LengthField
  {unit}
  label="blade room"
  name="Blade room about areas"
  value={lines.bladeMargin}
  least={0}
  most={fromPx(MOST_PX, unit)}
  change={(bladeMargin) => set({ bladeMargin })}
/>
<Fold title="Layers" figure={used > 0 ? `${used} set` : ''}>
  {#each layers as { id, name } (id)}
    <label class="field">
      <span class="quiet" dir="auto">{name}</span>
      <select
        aria-label="What is done on {name}"
        value={lines.uses[id] ?? 'own'}
        onchange={(e) => use(id, e.currentTarget.value)}
      >
        {#each USES as [how, words] (how)}<option value={how}>{words}</option>{/each}
      </select>
    </label>
  {/each}
</Fold>

<style>
  p {
    margin: 0;
  }
  .field .quiet {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
</style>
