import {
  EDGE_BLUR,
  fieldTiles,
  halved,
  nearestOnPath,
  parsePathData,
  pathBounds,
  transformPath,
  type Path,
} from '@mirrot/core';
import { describe, expect, it } from 'vitest';
import { clickAlong, pointsAlong } from '../core/src/trace/clicking';
import { painted } from '../core/src/trace/testing';
import { GATE_BADGE } from './originals/gate-badge';
import { GOURD } from './originals/gourd';
import { WATERING_CAN } from './originals/watering-can';

const ROOM = 40;
/** An outline of an original moved next to the origin, a third of its size where it is large. */
function alone(d: string): { path: Path; width: number; height: number } {
  const path = parsePathData(d)[0]!;
  const b = pathBounds(path);
  const k = Math.max(b.x1 - b.x0, b.y1 - b.y0) > 900 ? 0.4 : 1;
  const moved = transformPath(path, [k, 0, 0, k, ROOM - k * b.x0, ROOM - k * b.y0]);
  return {
    path: moved,
    width: Math.ceil(k * (b.x1 - b.x0) + 2 * ROOM),
    height: Math.ceil(k * (b.y1 - b.y0) + 2 * ROOM),
  };
}
const OUTLINES = [WATERING_CAN, GATE_BADGE, GOURD]
  .flatMap((o) => o.layers.flatMap((l) => l.shapes))
  .filter((s) => /^(Handle|Spout|Rose|Body|Band|Opening|Carry handle|Left leaf|Right leaf|Plate|Field|Sun|Ground|Left post|Right post|Rail|Stalk)$/.test(s.name)); // prettier-ignore

// Truth: the vector originals, each painted by itself, so that all of its outline is in sight.
describe('Reach on the outlines of our originals', () => {
  it(
    'clicked at its ticks makes no more anchors than they have and a tenth, within 0.3 px on average',
    { timeout: 120_000 },
    () => {
      let [own, clicked, off, count] = [0, 0, 0, 0];
      const told: string[] = [];
      for (const { name, d } of OUTLINES) {
        const { path, width, height } = alone(d);
        const raster = painted(width, height, [{ path, rgb: [47, 107, 79] }], [233, 225, 210], 6);
        const fine = fieldTiles(raster, 'edge', EDGE_BLUR);
        // Large ones are looked at from farther off, as one would.
        const large = Math.max(width, height) > 500;
        const coarse = large ? fieldTiles(halved(raster), 'edge', EDGE_BLUR) : fine;
        const done = clickAlong({ fine, coarse, ratio: large ? 2 : 1 }, path, 0.6, 8);
        const far = pointsAlong(done.path).map((p) => nearestOnPath(path, p)!.distance);
        const mean = far.reduce((s, v) => s + v, 0) / far.length;
        told.push(
          `${name}: ${path.anchors.length} → ${done.path.anchors.length}, ${mean.toFixed(2)} px${done.whole ? '' : ', not whole'}\n    ${done.log.join('\n    ')}`,
        );
        expect(done.whole, told.join('\n')).toBe(true);
        own += path.anchors.length;
        clicked += done.path.anchors.length;
        off += mean;
        count++;
      }
      expect(count).toBeGreaterThan(15);
      expect(clicked, told.join('\n')).toBeLessThanOrEqual(1.1 * own);
      expect(off / count, told.join('\n')).toBeLessThan(0.3);
    },
  );
});
