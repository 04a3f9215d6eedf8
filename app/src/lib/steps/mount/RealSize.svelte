<script lang="ts">
  import { fromPx, toPx, UNIT_DIGITS } from '@mirrot/core';
  import { realSize } from '$lib/desk/placing';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Modal from '$lib/ui/Modal.svelte';

  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const unit = $derived(desk.art.sheet.unit);
  const rule = $derived(desk.picture.knownLength);
  const now = $derived(rule ? Math.hypot(rule.to.x - rule.from.x, rule.to.y - rule.from.y) : 0);
  let typed = $state('');
  let field: HTMLInputElement | undefined = $state();
  let wrong: string | null = $state(null);

  function close(): void {
    desk.picture.knownLength = null;
    wrong = null;
    typed = '';
  }
  function take(e: SubmitEvent): void {
    e.preventDefault();
    const length = Number(typed.trim().replace(',', '.'));
    if (!rule || typed.trim() === '' || !Number.isFinite(length) || !(length > 0)) {
      wrong = 'A real size is a number above 0. Nothing was changed.';
      return;
    }
    const done = rule;
    close();
    desk.pointing.task = null;
    realSize(desk, done, toPx(length, unit));
  }
</script>

<Modal open={rule !== null} title="Real size" {close} width={380} first={() => field ?? null}>
  <form onsubmit={take}>
    <p>
      The line is {fromPx(now, unit).toFixed(UNIT_DIGITS[unit])}
      {unit} long on the sheet. How long is it really?
    </p>
    <label class="field">
      <span class="quiet">length</span>
      <input
        type="text"
        inputmode="decimal"
        aria-label="Real length"
        aria-invalid={wrong !== null}
        bind:value={typed}
        bind:this={field}
      />
      <span>{unit}</span>
    </label>
    {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
    <div class="actions">
      <button type="button" class="plain-button" onclick={close}>Leave it</button>
      <button type="submit" class="main-button">Scale the picture</button>
    </div>
  </form>
</Modal>

<style>
  form {
    display: flex;
    flex-direction: column;
    gap: 10px;
  }
  .wrong {
    color: var(--brick);
  }
  .actions {
    display: flex;
    justify-content: flex-end;
    gap: 10px;
  }
</style>
