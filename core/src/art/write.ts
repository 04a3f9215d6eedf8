import type { Art } from './schema';
import { isParent, type TreeNode } from './tree';

const texts = new WeakMap<TreeNode, string>();

function nodeText(node: TreeNode): string {
  if (isParent(node)) {
    const { children, ...fields } = node;
    return `${JSON.stringify(fields).slice(0, -1)},"children":[${children.map(nodeText).join(',')}]}`;
  }
  let text = texts.get(node);
  if (text === undefined) texts.set(node, (text = JSON.stringify(node)));
  return text;
}

/** The document as JSON. Shapes and pictures written before are not written out anew, so it costs what changed since. */
export function artText(art: Art): string {
  const { layers, ...fields } = art;
  return `${JSON.stringify(fields).slice(0, -1)},"layers":[${layers.map(nodeText).join(',')}]}`;
}
