<script lang="ts">
  import { paintList } from '@mirrot/core';
  import type { Desk } from '$lib/desk/desk.svelte';
  import type { View } from '$lib/desk/view';
  import { halfPlane } from './wipe';
  import Layer from './Layer.svelte';
  import Painted from './Painted.svelte';

  let { desk, view, margin }: { desk: Desk; view: View; margin: number } = $props();

  const seen = $derived(desk.looking.seen);
  const parts = $derived(paintList(desk.art));
  const { sheet } = $derived(desk.art);
  // What is proved, exported or peeked at is the whole drawing.
  const whole = $derived(
    desk.step === 'proof' || desk.step === 'export' || desk.pointing.held.has('shift+q'),
  );
  const focus = $derived(whole ? null : desk.choosing.focus);
  // What is blended is blended with the ground too, where no picture lies between.
  const ground = $derived(seen.picture === 0 ? sheet.ground : null);
  /** What is put beneath everything to see that holes are open: nothing lies outside the sheet in a file. */
  const BENEATH = { loud: '#ff2ea6', dark: '#1b1d19', light: '#fffdf6' } as const;
  const beneath = $derived.by(() => {
    const { ground: of, ownGround } = desk.looking;
    const proving = desk.step === 'colour' || desk.step === 'proof';
    if (of === 'sheet' || !proving || seen.picture > 0) return null;
    return of === 'own' ? ownGround : of === 'checks' ? 'url(#checks-beneath)' : BENEATH[of];
  });
  const wiped = $derived(desk.comparing.wiped);
  /** Screen pixels of a check. */
  const CHECK_PX = 10;
  const check = $derived(CHECK_PX / view.scale);
</script>

<Layer {desk} {view} {margin}>
  {#if wiped}<clipPath id="wiped-drawing"><polygon points={halfPlane(wiped, 1, sheet)} /></clipPath>{/if}
  <g
    class="fills"
    clip-path={wiped ? 'url(#wiped-drawing)' : null}
    opacity={seen.fills}
    style:display={seen.fills > 0 ? null : 'none'}
  >
    {#if beneath}
      <defs>
        <pattern id="checks-beneath" width={2 * check} height={2 * check} patternUnits="userSpaceOnUse">
          <rect width={2 * check} height={2 * check} fill="#fffdf6" />
          <path d="M0 0h{check}v{check}h{-check}zM{check} {check}h{check}v{check}h{-check}z" fill="#c9c2b2" />
        </pattern>
      </defs>
      <rect width={sheet.width} height={sheet.height} fill={beneath} />
    {:else if ground}<rect width={sheet.width} height={sheet.height} fill={ground} />{/if}
    <g class:faded={focus !== null}>
      <Painted {parts} place="bed" seeing={desk.picture.seeing} />
    </g>
    {#if focus}
      <Painted parts={paintList(desk.art, new Set([focus.id]))} place="focus" seeing={desk.picture.seeing} />
    {/if}
  </g>
  {#if desk.looking.uncovered && desk.picture.traced && (desk.step === 'colour' || desk.step === 'proof')}
    {#await import('./Uncovered.svelte') then { default: Uncovered }}
      <Uncovered {desk} {view} />
    {:catch}<!-- it needs the server once -->{/await}
  {/if}
</Layer>

<style>
  .faded {
    opacity: 0.25;
  }
</style>
