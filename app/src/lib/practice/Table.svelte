<script lang="ts">
  import type { Attempt } from '$lib/wire-practice';
  import { ROWS, time } from './words';

  // The ruled table on a packet's back: empty until something is handed in. Beside each other where there are two.
  interface Props {
    attempts: readonly { readonly name: string; readonly attempt: Attempt }[];
  }
  let { attempts }: Props = $props();
</script>

<table>
  {#if attempts.length > 1}
    <thead>
      <tr>
        <th scope="col"><span class="sr-only">Measure</span></th>
        {#each attempts as { name, attempt } (attempt.id)}<th scope="col">{name}</th>{/each}
      </tr>
    </thead>
  {/if}
  <tbody>
    {#each ROWS as [what, tell] (what)}
      <tr>
        <th scope="row">{what}</th>
        {#each attempts as { attempt } (attempt.id)}<td>{tell(attempt.score)}</td>{:else}<td></td>{/each}
      </tr>
    {/each}
    <tr>
      <th scope="row">time at work</th>
      {#each attempts as { attempt } (attempt.id)}<td>{time(attempt.seconds)}</td>{:else}<td></td>{/each}
    </tr>
    <tr>
      <th scope="row">presses</th>
      {#each attempts as { attempt } (attempt.id)}<td>{attempt.presses}</td>{:else}<td></td>{/each}
    </tr>
  </tbody>
</table>

<style>
  table {
    width: 100%;
    border-collapse: collapse;
    font-variant-numeric: tabular-nums;
  }
  tr {
    border-bottom: 1px solid var(--line);
  }
  th,
  td {
    height: 26px;
    padding: 2px 0;
    font-weight: 400;
    text-align: end;
  }
  th[scope='row'] {
    color: var(--quiet);
    text-align: start;
  }
  thead th {
    font-size: 13px;
  }
</style>
