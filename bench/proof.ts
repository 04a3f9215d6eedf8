// What proving costs: a drawing of 2,000 shapes, some of it wrong, beside writing it out as JSON and reading that.
import { addNode, changeArt, emptyArt, findings, seeded, together, TOLERANCES, artText, readArt, type Art, type Path } from '@mirrot/core'; // prettier-ignore
import { blob } from '../core/src/path/testing';
import { row, time } from './table';

const random = seeded(20);
const moved = (path: Path, x: number, y: number): Path => ({ ...path, anchors: path.anchors.map((a) => ({ ...a, x: a.x + x, y: a.y + y })) }); // prettier-ignore
const drawing = (count: number): Art =>
  changeArt(
    emptyArt({ width: 1984, height: 1403, unit: 'mm' }, 'layer'),
    together(
      ...Array.from(
        { length: count },
        (_, n) =>
        addNode('layer', { id: `s${n}`, type: 'shape', name: `Shape ${n}`, shown: true, locked: false, opacity: 1, fill: n % 3 === 0 ? null : { hex: '#2f6b4f' }, stroke: n % 3 === 0 ? { paint: { hex: '#22252b' }, width: 1.5, ends: 'round', joins: 'round', miterLimit: 4, dash: [] } : null, paths: [{ ...moved(blob(random, `p${n}`, 60), random() * 1900, random() * 1300), closed: n % 3 !== 0 }] }), // prettier-ignore
      ),
    ),
  ).art;
console.log('Proving, ms (ours, read as JSON, ratio):');
for (const count of [500, 2000]) {
  const arts = [drawing(count), drawing(count)];
  let [next, found] = [0, 0];
  const ours = time(() => void (found = findings(arts[next++ % arts.length]!, TOLERANCES.screen).length), 2);
  row(`${count} shapes, ${found} findings`, ours, time(() => void readArt(JSON.parse(artText(arts[0]!)))), 'the document checked'); // prettier-ignore
}
