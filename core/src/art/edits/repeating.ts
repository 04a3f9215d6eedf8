import type { Affine } from '../../geometry/affine';
import { MirrotError } from '../../error';
import type { Recipe } from '../change';
import { MOST_SHAPES } from '../limits';
import { mapRepeat, repeatedGroups, shapesSeen } from '../repeat';
import type { Group, Repeat, Shape } from '../schema';
import type { TreeNode } from '../tree';
import { draftNode, plain } from './draft';
import { together } from './nodes';
import { mapShape } from './paths';

// Groups that stand several times: what is in them leads, the copies follow.

/**
 * Gives a group its numbers, or with null lets it stand once.
 *
 * @throws MirrotError `art` where more shapes would be seen than a drawing holds
 */
export const setRepeat =
  (groupId: string, repeat: Repeat | null): Recipe =>
  (draft) => {
    const group = draftNode(draft, groupId);
    if (group?.type !== 'group') return;
    if (repeat && shapesSeen({ ...plain(group as Group), repeat }) > MOST_SHAPES)
      throw new MirrotError('art', `A drawing has ${MOST_SHAPES.toLocaleString('en')} shapes at most, copies counted. Nothing was changed.`); // prettier-ignore
    if (repeat) group.repeat = { ...repeat };
    else delete group.repeat;
  };

/** Maps the numbers of nodes that stand several times, and of all such that stand in them. */
export const mapRepeats =
  (ids: readonly string[], map: Affine): Recipe =>
  (draft) => {
    for (const id of ids) {
      const node = draftNode(draft, id);
      if (node && node.type !== 'shape')
        for (const group of repeatedGroups(plain(node as TreeNode))) setRepeat(group.id, mapRepeat(group.repeat!, map))(draft); // prettier-ignore
    }
  };

/** Maps shapes, and the numbers of the groups chosen with them as wholes. */
export const mapChosen = (shapes: readonly Shape[], nodes: readonly string[], map: Affine): Recipe =>
  together(...shapes.map((shape) => mapShape(shape, map)), mapRepeats(nodes, map));
