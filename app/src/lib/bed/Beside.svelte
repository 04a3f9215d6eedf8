<script lang="ts">
  // Words beside something on the bed, at a place in bed pixels.
  interface Props {
    x: number;
    y: number;
    text: string;
    /** They end at that place instead of beginning there. */
    left?: boolean;
    tone?: 'plain' | 'good' | 'bad';
    /** Read out, too; most say what the status says. */
    spoken?: boolean;
  }
  let { x, y, text, left = false, tone = 'plain', spoken = false }: Props = $props();
</script>

<span class="beside {tone}" class:left aria-hidden={!spoken} style:translate="{x}px {y}px">{text}</span>

<style>
  .beside {
    position: absolute;
    top: 0;
    left: 0;
    padding: 0 6px;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--paper);
    font-size: 12px;
    line-height: 18px;
    font-variant-numeric: tabular-nums;
    color: var(--text);
    white-space: nowrap;
    pointer-events: none;
  }
  .left {
    transform: translateX(-100%);
  }
  .good {
    color: var(--leaf);
  }
  .bad {
    color: var(--brick);
  }
</style>
