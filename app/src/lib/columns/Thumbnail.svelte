<script lang="ts">
  import { boxHeight, boxWidth, drawShape, isEmptyBox, shapeBounds, type Shape } from '@mirrot/core';

  let { shape }: { shape: Shape } = $props();

  const drawn = $derived(drawShape(shape));
  const box = $derived.by(() => {
    const b = shapeBounds(shape, true);
    if (isEmptyBox(b)) return '0 0 1 1';
    const size = Math.max(boxWidth(b), boxHeight(b), 1e-3) * 1.12;
    return `${(b.x0 + b.x1 - size) / 2} ${(b.y0 + b.y1 - size) / 2} ${size} ${size}`;
  });
  const bare = $derived(!shape.fill && !shape.stroke);
</script>

<svg class="thumb" viewBox={box} width="28" height="28" aria-hidden="true">
  <path
    d={drawn.d}
    fill={drawn.fill}
    fill-rule="evenodd"
    stroke={bare ? 'var(--quiet)' : drawn.stroke}
    stroke-width={bare ? 1.2 : drawn.strokeWidth}
    vector-effect={bare ? 'non-scaling-stroke' : null}
    opacity={drawn.opacity}
  />
</svg>

<style>
  .thumb {
    flex: none;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: #fffdf8;
  }
</style>
