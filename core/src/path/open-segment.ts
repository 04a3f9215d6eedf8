import { asBeginning, asEnding, type Anchor } from './anchor';
import { segmentCount, type Path } from './path';

/**
 * Opens a path by taking segment `segment` out.
 *
 * @returns the paths left: a closed one becomes one open path, an open one up to two, lone anchors dropped.
 *   The first keeps the id; `secondId` names the other.
 */
export function openSegment(path: Path, segment: number, secondId: string): Path[] {
  if (segment < 0 || segment >= segmentCount(path))
    throw new RangeError(`The path has ${segmentCount(path)} segments; there is no segment ${segment}.`);
  const open = (id: string, anchors: readonly Anchor[]): Path => ({
    id,
    closed: false,
    anchors: anchors.map((a, i) => {
      const begun = i === 0 ? asBeginning(a) : a;
      return i === anchors.length - 1 ? asEnding(begun) : begun;
    }),
  });
  const { anchors } = path;
  if (path.closed) return [open(path.id, [...anchors.slice(segment + 1), ...anchors.slice(0, segment + 1)])];
  const parts = [anchors.slice(0, segment + 1), anchors.slice(segment + 1)].filter((part) => part.length > 1);
  return parts.map((part, i) => open(i === 0 ? path.id : secondId, part));
}
