<script lang="ts">
  import type { Desk } from '$lib/desk/desk.svelte';
  import Fold from '$lib/ui/Fold.svelte';

  // What was done, newest first; a click goes back to just after it, or forth again to it.
  let { desk }: { desk: Desk } = $props();
  /** As many as anyone looks through; undo itself has no end. */
  const MOST = 60;
  const done = $derived(desk.history.done);
  const undone = $derived(desk.history.undone);
  const list = $derived([
    ...undone.map((s, i) => ({ label: s.label, at: done.length + undone.length - i, back: true })),
    ...done.map((s, i) => ({ label: s.label, at: i + 1, back: false })).reverse(),
  ]);
</script>

<div class="steps">
  <Fold title="Steps" figure={String(done.length)}>
    <ol aria-label="Steps, newest first">
      {#each list.slice(0, MOST) as step (step.at)}
        <li>
          <button
            class:back={step.back}
            aria-current={step.at === done.length ? 'step' : undefined}
            data-tip={step.back ? 'Do it again up to here' : 'Go back to just after this'}
            dir="auto"
            onclick={() => desk.goTo(step.at)}>{step.label}</button
          >
        </li>
      {/each}
      <li>
        <button aria-current={done.length === 0 ? 'step' : undefined} onclick={() => desk.goTo(0)}
          >As it was opened</button
        >
      </li>
    </ol>
  </Fold>
</div>

<style>
  .steps {
    padding: 6px 12px;
    border-top: 1px solid var(--line);
  }
  ol {
    max-height: 190px;
    margin: 0;
    padding: 0;
    overflow-y: auto;
    list-style: none;
  }
  button {
    width: 100%;
    padding: 3px 6px;
    overflow: hidden;
    border-radius: 4px;
    font-size: 13px;
    text-align: start;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  button:hover {
    background: var(--ledge);
  }
  button[aria-current] {
    font-weight: 600;
    color: var(--carrot-text, var(--text));
    box-shadow: inset 2px 0 var(--carrot);
  }
  .back {
    color: var(--quiet);
    font-style: italic;
  }
</style>
