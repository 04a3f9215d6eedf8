<script lang="ts">
  import { MediaQuery } from 'svelte/reactivity';
  import type { Desk } from '$lib/desk/desk.svelte';
  import Range from '$lib/ui/Range.svelte';
  import Toggle from '$lib/ui/Toggle.svelte';

  // Picture and drawing by turns, so that what differs jumps to the eye.
  let { desk }: { desk: Desk } = $props();
  let on = $state(false);
  /** Turns a second. */
  let rate = $state(2);
  // Flashes faster than three a second are none for everyone (WCAG 2.2, 2.3.1).
  const [SLOWEST, FASTEST] = [0.5, 3];
  const still = new MediaQuery('prefers-reduced-motion: reduce');
  let bare = $state(false);
  const turn = (to: boolean): void => {
    bare = to;
    desk.pointing.hold('q', to);
  };
  $effect(() => {
    if (!on || still.current) return;
    const timer = setInterval(() => turn(!bare), 1000 / rate);
    return () => clearInterval(timer);
  });
  // Ended, it holds nothing any more; a Q held by hand is none of its business.
  $effect(() => {
    if (on) return () => turn(false);
  });
</script>

<Toggle label="Blink" {on} change={(v) => (on = v)} />
{#if on && still.current}
  <button class="plain-button" onclick={() => turn(!bare)}>{bare ? 'The drawing' : 'The picture'}</button>
{:else if on}
  <Range
    label="turns a second"
    value={rate}
    min={SLOWEST}
    max={FASTEST}
    step={0.5}
    change={(v) => (rate = v)}
  />
{/if}
