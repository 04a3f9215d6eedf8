<script lang="ts">
  import type { SetAside } from '$lib/desk/kept-changes';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { age } from '$lib/ui/ages';
  import { saveFile } from '$lib/ui/files';
  import Modal from '$lib/ui/Modal.svelte';

  let { workplace }: { workplace: Workplace } = $props();

  /** A change with the drawing before and after it, as a file: it can be looked at and sent to whoever keeps the server. */
  const save = (aside: SetAside): void =>
    saveFile(
      `set-aside-${aside.id}.json`,
      new Blob([JSON.stringify(aside, null, 1)], { type: 'application/json' }),
    );
</script>

<Modal
  open={workplace.dialog === 'set-aside'}
  title="Set aside"
  width={560}
  close={() => (workplace.dialog = null)}
>
  <p class="quiet">
    The server did not take these changes. They are kept in this browser; everything drawn since has gone on
    without them.
  </p>
  <ul>
    {#each workplace.asides as aside (aside.id)}
      <li>
        <p><b dir="auto">{aside.label}</b> <span class="quiet">· {age(aside.at)}</span></p>
        <p class="reason" dir="auto">{aside.reason}</p>
        <div class="row">
          <button class="plain-button" onclick={() => void workplace.tryAside(aside)}>Try again</button>
          <button class="plain-button" onclick={() => save(aside)}>Save as a file</button>
          <button class="plain-button" onclick={() => void workplace.forgetAside(aside)}>Throw away</button>
        </div>
      </li>
    {/each}
  </ul>
</Modal>

<style>
  ul {
    display: grid;
    gap: 14px;
    max-height: 50vh;
    margin-top: 14px;
    overflow-y: auto;
  }
  li {
    padding: 10px 12px;
    border: 1px solid var(--line);
    border-left: 4px solid var(--brick);
    border-radius: 6px;
  }
  .reason {
    margin: 3px 0 9px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
</style>
