// What writing costs: a drawing of 5,000 shapes as each kind of file, a picture of 10,000 pixels, lines made ready for a cutter,
// strokes put into a short order; each beside the plain way to do it.
import { planPlot, plotFile, PLAIN_LINES, PX_PER, seeded, writeDxf, writeEps, writeSvg, linedArt, playFile, FIRST_MACHINE, formatPathData, shapesOf, changeArt, addNode, emptyArt, together, plotWay, type Art, type Path, type PenStroke } from '@mirrot/core'; // prettier-ignore
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import { outputPixels } from '../app/src/lib/server/output';
import { writePdf } from '../app/src/lib/server/pdf/pdf';
import { blob } from '../core/src/path/testing';
import { leastTravel } from '../core/src/plot/testing';
import { row, time } from './table';

const SHAPES = 5000;
const random = seeded(19);
const moved = (path: Path, x: number, y: number): Path => ({ ...path, anchors: path.anchors.map((a) => ({ ...a, x: a.x + x, y: a.y + y })) }); // prettier-ignore
const nodes = Array.from({ length: SHAPES }, (_, n) => ({
  id: `s${n}`,
  type: 'shape' as const,
  name: `Shape ${n}`,
  shown: true,
  locked: false,
  opacity: 1,
  fill: { hex: '#2f6b4f' },
  stroke: null,
  paths: [moved(blob(random, `p${n}`, 40), random() * 1900, random() * 1400)],
}));
/** A new document every time: what is kept of one is of no use to the next. */
const drawing = (): Art =>
  changeArt(
    emptyArt({ width: 1984, height: 1403, unit: 'mm' }, 'layer'),
    together(
      ...nodes.map((node) => addNode('layer', { ...node, paths: node.paths.map((path) => ({ ...path })) })),
    ),
  ).art;
const arts = Array.from({ length: 24 }, drawing);
let next = 0;
const fresh = (): Art => arts[next++ % arts.length]!;

console.log(`Writing ${SHAPES} shapes, ms (ours, the plain way, ratio):`);
const data = (): string => shapesOf(arts[0]!).map(({ shape }) => `<path d="${formatPathData(shape.paths.map((p) => ({ ...p })))}"/>`).join(''); // prettier-ignore
row(
  'SVG',
  time(() => void writeSvg(fresh())),
  time(() => void data()),
  'path data put together, nothing else',
);
row(
  'DXF',
  time(() => void writeDxf(fresh())),
  time(() => void data()),
  'the same path data',
);
row(
  'EPS',
  time(() => void writeEps(fresh())),
  time(() => void data()),
  'the same path data',
);
row(
  'HP-GL, in its order',
  time(() => void plotFile(fresh())),
  time(() => void data()),
  'the same path data',
);
const seen = { ...PLAIN_LINES, seen: true };
row('lines that are seen alone', time(() => void linedArt(fresh(), {}, seen), 1), time(() => void linedArt(fresh()), 1), 'all lines'); // prettier-ignore

const asyncTime = async (work: () => Promise<unknown>, times = 2): Promise<number> => {
  let least = Infinity;
  for (let i = 0; i < times; i++) {
    const from = performance.now();
    await work();
    least = Math.min(least, performance.now() - from);
  }
  return least;
};
const plainPdf = (): Promise<void> =>
  new Promise((done) => {
    const pdf = new PDFDocument({ size: [1984, 1403] });
    pdf.on('data', () => {});
    pdf.on('end', done);
    for (const { shape } of shapesOf(arts[0]!))
      pdf.path(formatPathData(shape.paths)).fill('#2f6b4f', 'even-odd');
    pdf.end();
  });
const pdf = await asyncTime(() => writePdf(fresh(), 'a', { area: 'sheet', picture: false }, () => Promise.reject(new Error('none')))); // prettier-ignore
row('PDF', pdf, await asyncTime(plainPdf), 'pdfkit, a path after another');

const before = process.memoryUsage.rss();
let peak = before;
const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage.rss())), 20);
const wide = { area: 'sheet', picture: false, width: 10_000 } as const;
const png = await asyncTime(() => outputPixels(undefined as never, fresh(), wide), 1);
const svg = Buffer.from(writeSvg(fresh()));
const plainPng = await asyncTime(() => sharp(svg, { limitInputPixels: false, unlimited: true }).resize(10_000).png().toBuffer(), 1); // prettier-ignore
clearInterval(watch);
row('PNG, 10,000 px wide', png, plainPng, 'sharp, the SVG enlarged');
console.log(`  the process took ${Math.round((peak - before) / 1e6)} MB more meanwhile`);

console.log(
  'Order of strokes: travel (ours, as they came, ratio), and ours against a minimum spanning tree:',
);
const stroke = (): PenStroke => {
  const [x, y, angle] = [random() * 300, random() * 300, random() * 7];
  return {
    pen: 1,
    closed: false,
    points: [
      { x, y },
      { x: x + Math.cos(angle), y: y + Math.sin(angle) },
    ],
  };
};
for (const count of [500, 2000]) {
  const strokes = Array.from({ length: count }, stroke);
  let plan = planPlot([]);
  const ms = time(() => void (plan = planPlot(strokes)), 1);
  row(`${count} strokes, mm`, plan.short.travel, plotWay(strokes).travel, 'in the order they came');
  console.log(`  ${' '.repeat(34)}${ms.toFixed(0)} ms, ${(plan.short.travel / leastTravel(strokes, { x: 0, y: 0 })).toFixed(2)} times the tree`); // prettier-ignore
}
const text = plotFile(fresh(), { order: 'short' }).text;
row(`playing ${SHAPES} outlines`, time(() => void playFile(text, FIRST_MACHINE), 1), time(() => void text.match(/-?\d+/g)!.map(Number), 1), 'its numbers read'); // prettier-ignore
console.log(`  sheet of ${(1984 / PX_PER.mm).toFixed(0)} mm`);
