import { MirrotError } from '../../error';
import type { Recipe } from '../change';
import type { Art, ArtNode } from '../schema';
import { ancestorsOf, findNode, layerOf } from '../tree';
import { cuttingOf, pasteCutting } from './cutting';
import { cloned, draftFind, draftParent } from './draft';
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
 * @throws MirrotError `art` where the earlier state has no such node, or the drawing has not the picture it takes
 */
export function bringBack(art: Art, earlier: Art, id: string, newId: () => string): BroughtBack {
  const was = findNode(earlier, id)?.node;
  const cutting = was && was.type !== 'layer' ? cuttingOf(earlier, [id]) : null;
  if (!cutting) throw new MirrotError('art', 'The kept copy has no such part. Nothing was changed.');
  const around = [...ancestorsOf(earlier, id), layerOf(earlier, id)!];
  const parent = around.find((node) => findNode(art, node.id))?.id ?? art.layers.at(-1)!.id;
  const pasting = pasteCutting(art, cutting, parent, { x: 0, y: 0 }, newId);
  const made = pasting.nodes[0]?.id;
  if (made === undefined)
    throw new MirrotError('art', 'Its picture is not in this drawing any more. Nothing was changed.');
  const there = findNode(art, id);
  if (!there?.parent) return { recipe: pasting.recipe, id: made };
  const inPlace: Recipe = (draft) => {
    const fresh = draftFind(draft, made);
    const now = draftFind(draft, id);
    if (!fresh || !now?.parent) return;
    const node = { ...(cloned(fresh.node) as ArtNode), name: was!.name, id };
    const [place, holder] = [now.index, now.parent];
    const clip = holder.type === 'group' ? holder.clip : undefined;
    detachNodes(draft, [made, id]);
    addNode(holder.id, node, place)(draft);
    // What clips a group goes on clipping it.
    const around = draftParent(draft, holder.id);
    if (clip !== undefined && around?.type === 'group') around.clip = clip;
  };
  return { recipe: together(pasting.recipe, inPlace), id };
}
