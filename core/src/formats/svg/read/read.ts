import { readArt } from '../../../art/check';
import { emptyArt } from '../../../art/blank';
import { FARTHEST_COORDINATE } from '../../../art/limits';
import type { Art, Group, Layer } from '../../../art/schema';
import { fitName } from '../../../art/text';
import { UNITS, type Unit } from '../../../art/units';
import { IDENTITY } from '../../../geometry/affine';
import { readElements } from './elements';
import { lengthOf, viewBoxOf, viewportMap } from './values';
import { reachOf, Reading, refuse, type Around, type LeftOut } from './walk';

/** A drawing read from an SVG. */
export interface SvgReading {
  readonly art: Art;
  /** The document's own title, or null. */
  readonly title: string | null;
  readonly left: LeftOut;
}

/** Size of a document that says none (CSS Images 3, "default object size"). */
const DEFAULT_SIZE = { width: 300, height: 150 };

const asLayer = ({ id, name, shown, opacity, blend, blur, shadow, children }: Group): Layer => ({
  id,
  type: 'layer',
  name,
  shown,
  locked: false,
  opacity,
  ...(blend ? { blend } : {}),
  ...(blur ? { blur } : {}),
  ...(shadow ? { shadow } : {}),
  ink: null,
  children,
});

/** The unit in which a document says its width. */
const unitOf = (text: string | undefined): Unit =>
  UNITS.find((unit) => new RegExp(`\\d\\s*${unit}\\s*$`, 'i').test(text ?? '')) ?? 'px';

/**
 * Reads an SVG as a drawing: paths, basic shapes, groups, uses, transforms, styles and classes, fills, lines, gradients,
 * clip paths, viewports and units (W3C SVG 2). The inside of every outline is told by the even-odd rule; where the file
 * tells it by the nonzero rule and that makes a difference, the outlines are drawn anew.
 *
 * @param options.layers whether groups that stand outermost become layers; otherwise all stands in one layer
 * @throws MirrotError `svg` or `art` with a sentence, where it is no SVG, broken, meant to do harm, or more than a drawing holds
 */
export function readSvg(text: string, { layers = true }: { readonly layers?: boolean } = {}): SvgReading {
  const root = readElements(text);
  const reading = new Reading(root);
  const { attributes } = root;
  const inner = viewBoxOf(attributes.viewBox);
  const said = {
    width: lengthOf(/%/.test(attributes.width ?? '') ? undefined : attributes.width, 0),
    height: lengthOf(/%/.test(attributes.height ?? '') ? undefined : attributes.height, 0),
  };
  const ratio = inner ? inner.width / inner.height : null;
  const width = said.width ?? (said.height !== null && ratio ? said.height * ratio : (inner?.width ?? DEFAULT_SIZE.width)); // prettier-ignore
  const height = said.height ?? (said.width !== null && ratio ? said.width / ratio : (inner?.height ?? DEFAULT_SIZE.height)); // prettier-ignore
  if (!(width >= 0.01 && height >= 0.01 && width <= FARTHEST_COORDINATE && height <= FARTHEST_COORDINATE))
    refuse('The size of this SVG is none that a sheet can have.');
  const outer = { x: 0, y: 0, width, height };
  const map = inner ? viewportMap(inner, outer, attributes.preserveAspectRatio) : IDENTITY;
  const style = reading.lookup.styleOf(root, null);
  const around: Around = { map, style, viewport: inner ?? outer, using: new Set() };
  const nodes = root.children.flatMap((child) => reading.nodes(child, around));
  const reach = reachOf(nodes, IDENTITY);
  if (Math.max(-reach.x0, -reach.y0, reach.x1, reach.y1) > FARTHEST_COORDINATE)
    refuse('This SVG reaches farther than a drawing can: over a million sheet pixels.');
  const empty = emptyArt({ width, height, unit: unitOf(attributes.width) }, reading.newId());
  const outermost = nodes.filter((node): node is Group => node.type === 'group' && node.clip === undefined);
  const asLayers = layers && nodes.length > 0 && outermost.length === nodes.length;
  const title = root.children.find((child) => child.name === 'title')?.text ?? '';
  return {
    art: readArt({
      ...empty,
      layers: asLayers ? outermost.map(asLayer) : [{ ...empty.layers[0]!, children: nodes }],
    }),
    title: fitName(title.replace(/\s+/g, ' '), '') || null,
    left: reading.left,
  };
}
