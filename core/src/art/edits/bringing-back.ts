import { MirrotError } from '../../error';
import type { Recipe } from '../change';
import type { Art, ArtNode } from '../schema';
import { ancestorsOf, findNode, layerOf } from '../tree';
import { cuttingOf, pasteCutting } from './cutting';
import { cloned, draftFind } from './draft';
import { addNode, detachNodes, together } from './nodes';

/** A recipe that brings a node back, and the id it has then. */
export interface BroughtBack {
  readonly recipe: Recipe;
  readonly id: string;
}

/**
 * Takes one shape, group or picture out of an earlier state of a drawing. What is still there is put as it was, in the place
 * where it stands now; what is gone comes back on top of what it stood in, or of its layer, or of the topmost.
 *
 * @param newId gives an id that is in neither, another one each time
 * @throws MirrotError `art` where the earlier state has no such node
 */
export function bringBack(art: Art, earlier: Art, id: string, newId: () => string): BroughtBack {
  const was = findNode(earlier, id)?.node;
  const cutting = was && was.type !== 'layer' ? cuttingOf(earlier, [id]) : null;
  if (!cutting) throw new MirrotError('art', 'The kept copy has no such part. Nothing was changed.');
  const around = [...ancestorsOf(earlier, id), layerOf(earlier, id)!];
  const parent = around.find((node) => findNode(art, node.id))?.id ?? art.layers.at(-1)!.id;
  const pasting = pasteCutting(art, cutting, parent, { x: 0, y: 0 }, newId);
  const there = findNode(art, id);
  if (!there?.parent) return { recipe: pasting.recipe, id: pasting.ids[0]! };
  const inPlace: Recipe = (draft) => {
    const fresh = draftFind(draft, pasting.ids[0]!);
    const now = draftFind(draft, id);
    if (!fresh || !now?.parent) return;
    const node = { ...(cloned(fresh.node) as ArtNode), name: was!.name, id };
    const [place, holder] = [now.index, now.parent.id];
    detachNodes(draft, [fresh.node.id, id]);
    addNode(holder, node, place)(draft);
  };
  return { recipe: together(pasting.recipe, inPlace), id };
}
