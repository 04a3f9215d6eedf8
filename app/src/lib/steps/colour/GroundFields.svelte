<script lang="ts">
  import { untrack } from 'svelte';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { GROUNDS, type Ground } from '$lib/desk/looking.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';
  import { toning } from './commands';

  // What lies beneath everything, to see that holes are open; and what of the picture no shape covers yet.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  /** So long after the last change the share is worked out, milliseconds. */
  const RESTS_MS = 300;
  $effect(() => {
    void desk.drawing.kept;
    if (!looking.uncovered || desk.pointing.pressing || !desk.picture.driftSettings) return;
    const timer = setTimeout(
      () => untrack(() => toning(workplace, ({ findBare }) => findBare(workplace))),
      RESTS_MS,
    );
    return () => clearTimeout(timer);
  });
  const { looking } = $derived(desk);
  const WORDS = { sheet: 'sheet', checks: 'checks', loud: 'loud', dark: 'dark', light: 'light', own: 'own' } as const satisfies Record<Ground, string>; // prettier-ignore
  function put(ground: Ground): void {
    looking.ground = ground;
    // The picture would hide it.
    if (ground !== 'sheet' && looking.seen.picture > 0) looking.glass = 100;
  }
  const share = $derived(desk.picture.bare);
</script>

<Fold
  title="See-through"
  figure={looking.uncovered && share !== null
    ? `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} % bare`
    : WORDS[looking.ground]}
>
  <span class="quiet">beneath everything</span>
  <Segments
    label="Ground beneath everything"
    value={looking.ground}
    options={GROUNDS.slice(0, 3).map((g) => [g, WORDS[g]] as const)}
    change={put}
  />
  <Segments
    label="More grounds beneath everything"
    value={looking.ground}
    options={GROUNDS.slice(3).map((g) => [g, WORDS[g]] as const)}
    change={put}
  />
  {#if looking.ground === 'own'}
    <label class="field">
      <span class="quiet">colour</span>
      <input type="color" bind:value={looking.ownGround} aria-label="Colour beneath everything" />
    </label>
  {/if}
  {#if desk.picture.traced}
    <Toggle label="Uncovered" on={looking.uncovered} change={(on) => (looking.uncovered = on)} />
    {#if looking.uncovered}
      <p class="quiet">
        {share === null
          ? 'The share is known once the picture is in sight.'
          : share < 0.0005
            ? 'All of the picture is covered.'
            : `${(100 * share).toFixed(1)} % of the picture is covered by no shape: it is hatched.`}
      </p>
    {/if}
  {/if}
</Fold>

<style>
  .quiet {
    font-size: 12.5px;
  }
  input[type='color'] {
    height: 24px;
    padding: 0;
    border: 0;
    background: none;
  }
</style>
