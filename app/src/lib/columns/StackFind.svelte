<script lang="ts">
  import { asksForAll, ONLY, type Asked } from './find-rows';

  interface Props {
    asked: Asked;
    /** How many nodes answer. */
    found: number;
    ask: (asked: Asked) => void;
    /** Goes to the first row found. */
    first: () => void;
    close: () => void;
  }
  let { asked, found, ask, first, close }: Props = $props();

  function keydown(e: KeyboardEvent): void {
    if (e.key === 'Enter' || e.key === 'ArrowDown') first();
    else if (e.key === 'Escape') close();
    else return;
    e.preventDefault();
    e.stopPropagation();
  }
</script>

<search class="find">
  <input
    type="search"
    {@attach (input) => input.focus()}
    aria-label="Find in the stack"
    placeholder="name"
    value={asked.text}
    oninput={(e) => ask({ ...asked, text: e.currentTarget.value })}
    onkeydown={keydown}
  />
  <select
    aria-label="Rows shown"
    value={asked.only}
    onchange={(e) => ask({ ...asked, only: e.currentTarget.value as Asked['only'] })}
  >
    {#each Object.entries(ONLY) as [value, words] (value)}<option {value}>{words}</option>{/each}
  </select>
  <span class="quiet" role="status">{asksForAll(asked) ? '' : found === 0 ? 'none' : `${found} found`}</span>
</search>

<style>
  .find {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 4px 6px;
    align-items: center;
    padding: 0 8px 6px 12px;
    font-size: 12.5px;
  }
  input {
    grid-column: 1 / -1;
  }
  input,
  select {
    width: 100%;
    min-width: 0;
    min-height: 28px;
    padding: 2px 6px;
    border: 1px solid var(--line);
    border-radius: 6px;
    background: var(--field, transparent);
    font: inherit;
  }
</style>
