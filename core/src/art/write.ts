import type { Art, Layer, Shape, ShapeNode } from './schema';

const texts = new WeakMap<Shape, string>();

function nodeText(node: Layer | ShapeNode): string {
  if (node.type !== 'shape') {
    const { children, ...fields } = node;
    return `${JSON.stringify(fields).slice(0, -1)},"children":[${children.map(nodeText).join(',')}]}`;
  }
  let text = texts.get(node);
  if (text === undefined) texts.set(node, (text = JSON.stringify(node)));
  return text;
}

/** The document as JSON. Shapes written before are not written out anew, so it costs what changed since. */
export function artText(art: Art): string {
  const { layers, ...fields } = art;
  return `${JSON.stringify(fields).slice(0, -1)},"layers":[${layers.map(nodeText).join(',')}]}`;
}
