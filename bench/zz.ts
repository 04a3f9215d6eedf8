import { enclosedAreas } from '../core/src/path/enclosed';
import { pathOf, anchor, seeded } from '../core/src/testing';
import {arrange} from "../core/src/path/arrangement"; import {facesOf} from "../core/src/path/faces";
const random=seeded(5000);
const crossing = Array.from({ length: 500 }, (_, i) => {
  const [x, y] = [2000 * random(), 2000 * random()];
  const by = (): [number, number] => [200 * (random() - 0.5), 200 * (random() - 0.5)];
  return pathOf([anchor(x, y, null, by()), anchor(x + 300 * (random() - 0.5), y + 300 * (random() - 0.5), by(), by(), 'smooth'), anchor(x + 300 * (random() - 0.5), y + 300 * (random() - 0.5), by(), null)], false, `l${i}`);
});
for(let i=0;i<2;i++){const t=performance.now(); const A=arrange([],crossing); const t1=performance.now()-t; facesOf(A); console.log(t1, performance.now()-t);console.log(enclosedAreas(crossing,n=>'a'+n,2).areas.length, performance.now()-t);}
