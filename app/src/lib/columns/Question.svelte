<script lang="ts">
  import { onMount } from 'svelte';
  import type { Workplace } from '$lib/desk/workplace.svelte';

  // A question above the bed: its answers as buttons, the first has the keyboard. Esc leaves it unanswered.
  let { workplace }: { workplace: Workplace } = $props();
  let first: HTMLButtonElement | undefined = $state();
  onMount(() => first?.focus());

  function answer(run: () => void): void {
    workplace.question = null;
    run();
  }
  function keydown(e: KeyboardEvent): void {
    if (e.key !== 'Escape') return;
    e.stopPropagation();
    e.preventDefault();
    workplace.question = null;
  }
</script>

<svelte:window onkeydowncapture={keydown} />

{#if workplace.question}
  <div class="over-bed" role="group" aria-label={workplace.question.text}>
    <span dir="auto">{workplace.question.text}</span>
    {#each workplace.question.ways as { label, run }, i (label)}
      {#if i === 0}
        <button class="plain-button" bind:this={first} onclick={() => answer(run)}>{label}</button>
      {:else}
        <button class="plain-button" onclick={() => answer(run)}>{label}</button>
      {/if}
    {/each}
    <button class="plain-button" onclick={() => (workplace.question = null)}
      >Leave <kbd class="key">Esc</kbd></button
    >
  </div>
{/if}
