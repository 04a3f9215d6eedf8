<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { onMount, type Component } from 'svelte';
  import { STEP_NAMES, STEPS, type Step } from '$lib/desk/steps';
  import { whenIdle } from '$lib/ui/when-idle';
  import { stepSet } from './step-set';
  import Glass from './Glass.svelte';
  import Loupe from './Loupe.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const { panels } = stepSet();
  let there: Partial<Record<Step, Component<{ workplace: Workplace }>>> = $state.raw({});
  const Panel = $derived(there[desk.step]);
  async function load(step: Step): Promise<void> {
    if (there[step]) return;
    const module = await panels[step]();
    there = { ...there, [step]: module.default };
  }
  $effect(() => {
    load(desk.step).catch(() =>
      desk.say('This panel could not be fetched. Reload the page; nothing is lost.', 'bad'),
    );
  });
  // The others come while nothing else is to be done, so that a step opens at once.
  onMount(() => whenIdle(() => STEPS.forEach((step) => void load(step).catch(() => {}))));
</script>

<aside class="eye" aria-label="Eye">
  {#if desk.habits.loupe}<Loupe {desk} />{/if}
  <Glass {desk} />
  {#if workplace.project.practised !== null}
    {#await import('$lib/practice/Packet.svelte') then { default: Packet }}<Packet {workplace} />
    {:catch}<p class="quiet">The exercise could not be fetched. Reload the page; nothing is lost.</p>{/await}
  {/if}
  <div class="panel" role="group" aria-label="{STEP_NAMES[desk.step]} panel">
    {#if Panel}<Panel {workplace} />{/if}
  </div>
</aside>

<style>
  .eye {
    /* Inputs hidden in switches are laid out within it: else they would make the page longer than the window. */
    position: relative;
    grid-area: eye;
    display: flex;
    flex-direction: column;
    gap: 10px;
    width: 256px;
    min-height: 0;
    padding: 12px;
    overflow-y: auto;
    border-left: 1px solid var(--line);
    background: var(--paper);
  }
  @media (width < 1000px) {
    .eye {
      position: relative;
      z-index: 5;
      grid-area: bed;
      justify-self: end;
      width: min(272px, 84vw);
    }
  }
  .panel {
    display: flex;
    flex-direction: column;
    gap: 10px;
    padding-top: 10px;
    border-top: 1px solid var(--line);
  }
</style>
