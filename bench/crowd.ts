import { emptyArt, parsePathData, type Art, type Shape } from '@mirrot/core';

/** A drawing of many small blobs in rows, as large projects are: `count` shapes of four smooth anchors. */
export function crowd(count: number, width = 1200, height = 900): Art {
  const columns = Math.ceil(Math.sqrt((count * width) / height));
  const step = width / columns;
  const shapes: Shape[] = Array.from({ length: count }, (_, i) => {
    const x = ((i % columns) + 0.5) * step;
    const y = (Math.floor(i / columns) + 0.5) * step;
    const r = step * (0.34 + 0.1 * Math.sin(i));
    const k = r * 0.5522847498;
    const d = `M${x + r} ${y}C${x + r} ${y + k} ${x + k} ${y + r} ${x} ${y + r}S${x - r} ${y + k} ${x - r} ${y}S${x - k} ${y - r} ${x} ${y - r}S${x + r} ${y - k} ${x + r} ${y}Z`;
    return {
      id: `s${i}`,
      type: 'shape',
      name: `Shape ${i + 1}`,
      shown: true,
      locked: false,
      opacity: 1,
      fill: { hex: `#${((i * 2654435761) >>> 8).toString(16).padStart(6, '0').slice(0, 6)}` },
      stroke: null,
      paths: parsePathData(d, () => `p${i}`),
    };
  });
  const art = emptyArt({ width, height, unit: 'px' }, 'layer');
  return { ...art, layers: [{ ...art.layers[0]!, children: shapes }] };
}
