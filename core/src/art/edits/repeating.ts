import type { Draft } from 'mutative';
import type { Affine } from '../../geometry/affine';
import type { Recipe } from '../change';
import { copyMaps, mapRepeat } from '../repeat';
import type { Art, ArtNode, Group, Repeat, Shape } from '../schema';
import { childrenOf, nodesOf, shapesIn, type TreeNode } from '../tree';
import { freshCopies } from './copying';
import { cloned, draftNode, plain } from './draft';
import { together } from './nodes';
import { mapShape } from './paths';

// Groups that stand several times: what is in them leads, the copies follow.

/** Gives a group its numbers, or with null lets it stand once. */
export const setRepeat =
  (groupId: string, repeat: Repeat | null): Recipe =>
  (draft) => {
    const group = draftNode(draft, groupId);
    if (group?.type !== 'group') return;
    if (repeat) group.repeat = { ...repeat };
    else delete group.repeat;
  };

/** Maps the numbers of nodes that stand several times, and of all such that stand in them. */
export const mapRepeats =
  (ids: readonly string[], map: Affine): Recipe =>
  (draft) => {
    const repeated = (node: TreeNode): Group[] => [
      ...(node.type === 'group' && node.repeat ? [node] : []),
      ...childrenOf(node).flatMap(repeated),
    ];
    for (const id of ids) {
      const node = draftNode(draft, id);
      if (node && node.type !== 'shape')
        for (const group of repeated(plain(node as TreeNode))) setRepeat(group.id, mapRepeat(group.repeat!, map))(draft); // prettier-ignore
    }
  };

/** Maps shapes, and the numbers of the groups chosen with them as wholes. */
export const mapChosen = (shapes: readonly Shape[], nodes: readonly string[], map: Affine): Recipe =>
  together(...shapes.map((shape) => mapShape(shape, map)), mapRepeats(nodes, map));

/**
 * Parts the copies of groups: each becomes what it shows, a shape or group of its own in the group that stands once from
 * now on.
 *
 * @param newId gives an id that is not in the drawing, another one each time
 */
export function partCopies(art: Art, ids: readonly string[], newId: () => string): Recipe {
  const groups = nodesOf(art, ids).flatMap((node) => (node.type === 'group' && node.repeat ? [node] : []));
  return together(
    ...groups.map((group): Recipe => {
      const { id, name, children, clip } = group;
      const maps = copyMaps(group);
      const stands = { shown: true, locked: false, opacity: 1 } as const;
      const first: ArtNode =
        children.length === 1 && clip === undefined
          ? children[0]!
          : { id: newId(), type: 'group', name: `${name} 1`, ...stands, children, ...(clip === undefined ? {} : { clip }) }; // prettier-ignore
      const stem = first.name.replace(/ \d+$/, '');
      const copies = maps.map((_, k) => ({ ...freshCopies([first], newId)[0]!, name: `${stem} ${k + 2}` }));
      return (draft) => {
        const parted = draftNode(draft, id);
        if (parted?.type !== 'group') return;
        delete parted.repeat;
        delete parted.clip;
        parted.children = cloned([first, ...copies]) as Draft<ArtNode>[];
        copies.forEach((copy, k) => mapChosen(shapesIn(copy), [copy.id], maps[k]!)(draft));
      };
    }),
  );
}
