import type { Draft } from 'mutative';
import type { Affine } from '../../geometry/affine';
import type { Recipe } from '../change';
import { copyMaps, mapRepeat } from '../repeat';
import type { ArtNode, Group, Repeat } from '../schema';
import { childrenOf, shapesIn, type TreeNode } from '../tree';
import { freshCopies } from './copying';
import { cloned, draftNode, plain } from './draft';
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

/**
 * Parts the copies of groups: each becomes what it shows, a group of its own in the one that stands once from now on.
 *
 * @param newId gives an id that is not in the drawing, another one each time
 */
export const partCopies =
  (ids: readonly string[], newId: () => string): Recipe =>
  (draft) => {
    for (const id of ids) {
      const found = draftNode(draft, id);
      if (found?.type !== 'group' || !found.repeat) continue;
      const group = plain(found as Group);
      const maps = copyMaps(group);
      const leading: Group = { id: newId(), type: 'group', name: `${group.name} 1`, shown: true, locked: false, opacity: 1, children: group.children, ...(group.clip === undefined ? {} : { clip: group.clip }) }; // prettier-ignore
      const single = group.children.length === 1 && group.clip === undefined;
      const first: ArtNode = single ? group.children[0]! : leading;
      const copies = maps.map((_, k) => {
        const [copy] = freshCopies([first], newId);
        return { ...copy!, name: `${first.name.replace(/ \d+$/, '')} ${k + 2}` };
      });
      delete found.repeat;
      delete found.clip;
      found.children = cloned([first, ...copies]) as Draft<ArtNode>[];
      copies.forEach((copy, k) => {
        for (const shape of shapesIn(copy)) mapShape(shape, maps[k]!)(draft);
        mapRepeats([copy.id], maps[k]!)(draft);
      });
    }
  };
