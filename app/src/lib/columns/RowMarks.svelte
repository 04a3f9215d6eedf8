<script lang="ts">
  import type { Drop, Row } from './rows';

  // Where a row belongs, and where what is dragged over it would land. It lies over the row.
  interface Props {
    row: Row;
    drop: Drop | null;
    /** How much farther in a row stands than the one it is in, pixels. */
    indent: number;
  }
  let { row, drop, indent }: Props = $props();
</script>

{#each row.veins as goesOn, i (i)}
  {@const own = i === row.veins.length - 1}
  {#if goesOn || own}
    <i class="vein" class:own class:last={own && !goesOn} style:left="{6 + (i + 1) * indent}px"></i>
  {/if}
{/each}
{#if drop && drop.part !== 'in'}
  <!-- Where it would land: a line with a bud at its indent. -->
  <i class="landing {drop.part}" style:left="{4 + drop.depth * indent}px"></i>
{/if}

<style>
  /* A group is a vein, with a twig to each row in it. */
  .vein {
    position: absolute;
    top: 0;
    bottom: 0;
    width: 5px;
    border-left: 1px solid var(--quiet);
    pointer-events: none;
  }
  .vein.own::after {
    position: absolute;
    top: 19px;
    left: 0;
    width: 5px;
    border-top: 1px solid var(--quiet);
    content: '';
  }
  .vein.last {
    bottom: 19px;
  }
  .landing {
    position: absolute;
    right: 6px;
    z-index: 1;
    height: 2px;
    background: var(--carrot);
    pointer-events: none;
  }
  .landing.above {
    top: -1px;
  }
  .landing.below {
    bottom: -1px;
  }
  .landing::before {
    position: absolute;
    top: -3px;
    left: -4px;
    width: 8px;
    height: 8px;
    border-radius: 50% 50% 50% 0;
    background: var(--carrot);
    content: '';
    rotate: 45deg;
  }
</style>
