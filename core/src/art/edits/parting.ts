import type { Draft } from 'mutative';
import type { Recipe } from '../change';
import { copyMaps } from '../repeat';
import type { Art, ArtNode } from '../schema';
import { nodesOf, shapesIn } from '../tree';
import { freshCopies } from './copying';
import { cloned, draftNode } from './draft';
import { together } from './nodes';
import { mapChosen } from './repeating';

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
      const { id, name, children, clip, edge } = group;
      const maps = copyMaps(group);
      const stands = { shown: true, locked: false, opacity: 1 } as const;
      const first: ArtNode =
        children.length === 1 && clip === undefined
          ? children[0]!
          : { id: newId(), type: 'group', name: `${name} 1`, ...stands, children, ...(clip === undefined ? {} : { clip }), ...(edge ? { edge } : {}) }; // prettier-ignore
      const stem = first.name.replace(/ \d+$/, '');
      const copies = maps.map((_, k) => ({ ...freshCopies([first], newId)[0]!, name: `${stem} ${k + 2}` }));
      return (draft) => {
        const parted = draftNode(draft, id);
        if (parted?.type !== 'group') return;
        delete parted.repeat;
        delete parted.clip;
        delete parted.edge;
        parted.children = cloned([first, ...copies]) as Draft<ArtNode>[];
        copies.forEach((copy, k) => mapChosen(shapesIn(copy), [copy.id], maps[k]!)(draft));
      };
    }),
  );
}
