import { setNode } from '../art/edits';
import { ancestorsOf, childrenOf, findNode, type TreeNode } from '../art/tree';
import { shownCorners } from '../art/placed-picture';
import { boxCentre, boxOfPoints } from '../geometry/bounds';
import type { Check } from './finding';

/** Pictures that are parts of the drawing, whole and in sight: they will be in the file. One that is cut out is meant to be. */
export const pictureShown: Check = {
  kind: 'picture-shown',
  find({ art }) {
    const shown = (node: TreeNode): string[] =>
      !node.shown ? []
      : node.type === 'picture' ? [node.id]
      : childrenOf(node).flatMap(shown); // prettier-ignore
    return art.layers.flatMap(shown).flatMap((id) => {
      if (ancestorsOf(art, id).some((node) => 'clip' in node && node.clip !== undefined)) return [];
      const node = findNode(art, id)!.node;
      const placed = node.type === 'picture' && art.pictures.find((p) => p.id === node.picture);
      if (!placed) return [];
      const at = boxCentre(boxOfPoints(shownCorners(placed)));
      return [{ kind: 'picture-shown' as const, key: `picture-shown ${id}`, shapes: [id], at, amount: 1 }];
    });
  },
  fix: (art, { shapes: [id] }) =>
    id !== undefined && findNode(art, id) ? setNode(id, { shown: false }) : null,
};
