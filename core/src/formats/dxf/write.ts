import {
  DxfWriter,
  LWPolylineFlags,
  point2d,
  point3d,
  SplineFlags,
  TrueColor,
  Units,
} from '@tarikjabiri/dxf';
import { outputOf, type OutputRange } from '../../art/output';
import type { Art } from '../../art/schema';
import { PX_PER } from '../../art/units';
import { boxHeight, boxWidth } from '../../geometry/bounds';
import type { Point } from '../../geometry/vector';
import { segmentIsLine, pathCubics, type Path } from '../../path/path';
import { MirrotError } from '../../error';
import { outlinesOf } from '../outlines';

// Source: Autodesk, DXF Reference, group codes of SPLINE, LWPOLYLINE, CIRCLE and LAYER; from memory, and as dxf-parser
// reads them (in the tests).

/** Colour 7 of a layer's table: black on white, white on black. */
const FOREGROUND = 7;
/** Longest name of a layer, characters. */
const LONGEST_NAME = 255;

/** Names of layers without what DXF refuses in them, unlike each other. */
function layerNames(): (name: string) => string {
  const known = new Map<string, string>();
  const used = new Set(['0']);
  return (name) => {
    const before = known.get(name);
    if (before !== undefined) return before;
    const stem =
      name
        .replace(/[<>/\\":;?*|=`,]|\p{Cc}/gu, ' ')
        .trim()
        .slice(0, LONGEST_NAME - 6) || 'Layer';
    let free = stem;
    for (let n = 2; used.has(free.toLowerCase()); n++) free = `${stem} ${n}`;
    used.add(free.toLowerCase());
    known.set(name, free);
    return free;
  };
}

/** One spline of degree 3 for a run of cubics: three knots where two of them meet, so that it is the same curve. */
function splineOf(path: Path, at: (p: Point) => Point) {
  const cubics = pathCubics(path);
  const points = [cubics[0]![0], ...cubics.flatMap(([, b, c, d]) => [b, c, d])].map(at);
  const knots = [
    0,
    ...cubics.flatMap((_, i) => [i, i, i]),
    cubics.length,
    cubics.length,
    cubics.length,
    cubics.length,
  ];
  return { controlPoints: points.map(({ x, y }) => point3d(x, y, 0)), degreeCurve: 3, knots };
}

/**
 * A drawing's lines as DXF, in millimetres, y upward from the foot of what is shown: paths of straight lines as polylines, circles
 * that were drawn as such as circles, all else as splines of degree 3 that are the same curves; each on the layer it stands
 * in, in the colour of its stroke, else of its fill.
 *
 * @throws MirrotError `nothing` when nothing of the drawing is a line
 */
export function writeDxf(art: Art, range: OutputRange = {}): string {
  const { list, box } = outputOf(art, range);
  const shapes = outlinesOf(list);
  if (shapes.length === 0)
    throw new MirrotError(
      'nothing',
      'There is no line in this drawing to write. Show a shape that has a fill or a stroke.',
    );
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  const mm = (range.scale ?? 1) / PX_PER.mm;
  const at = ({ x, y }: Point): Point => ({ x: (x - box.x0) * mm, y: (box.y1 - y) * mm });
  dxf.setVariable('$EXTMIN', { 10: 0, 20: 0, 30: 0 });
  dxf.setVariable('$EXTMAX', { 10: boxWidth(box) * mm, 20: boxHeight(box) * mm, 30: 0 });
  const nameOf = layerNames();
  const made = new Set<string>();
  for (const { layer, paths, fill, stroke } of shapes) {
    const layerName = nameOf(layer.name);
    if (!made.has(layerName)) dxf.addLayer(layerName, FOREGROUND);
    made.add(layerName);
    const look = { layerName, trueColor: String(TrueColor.fromHex((stroke?.hex ?? fill)!)) };
    for (const path of paths) {
      const { form } = path;
      if (form?.kind === 'ellipse' && form.width === form.height) {
        const centre = at(form);
        dxf.addCircle(point3d(centre.x, centre.y, 0), (form.width / 2) * mm, look);
      } else if (pathCubics(path).every((_, i) => segmentIsLine(path, i))) {
        const points = path.anchors.map(at).map(({ x, y }) => ({ point: point2d(x, y) }));
        dxf.addLWPolyline(points, {
          ...look,
          flags: path.closed ? LWPolylineFlags.Closed : LWPolylineFlags.None,
        });
      } else {
        const flags = SplineFlags.Planar + (path.closed ? SplineFlags.Closed : 0);
        dxf.addSpline({ ...splineOf(path, at), flags }, look);
      }
    }
  }
  return dxf.stringify();
}
