import { widen, strokeToShape } from '../core/src/path/stroke-to-shape';
import { strokePieces } from '../core/src/path/stroke-pieces';
import { arrange } from '../core/src/path/arrangement';
import { pathArea, flattenPath } from '../core/src/path/path-measure';
import { windingNumber, insideEvenOdd } from '../core/src/geometry/flatten';
import { cubicPoint, cubicTangent } from '../core/src/geometry/cubic';
const path:any={"id":"w","closed":true,"anchors":[{"x":41.445696097798645,"y":49.12337276618928,"kind":"smooth","in":{"x":-5.054635106267836,"y":19.00087716379406},"out":{"x":5.054635106267836,"y":-19.00087716379406}},{"x":80.88110841345042,"y":28.953472175635397,"kind":"smooth","in":{"x":2.190388554537141,"y":3.0758425004697747},"out":{"x":-2.190388554537141,"y":-3.0758425004697747}},{"x":8.690419397316873,"y":3.1269343802705407,"kind":"smooth","in":{"x":3.4079626496714788,"y":-7.900321973576777},"out":{"x":-3.4079626496714788,"y":7.900321973576777}},{"x":61.38733639381826,"y":74.14383699651808,"kind":"smooth","in":{"x":-16.257829457090764,"y":-25.290453537074214},"out":{"x":16.257829457090764,"y":25.290453537074214}},{"x":64.61066489573568,"y":90.1156910462305,"kind":"smooth","in":{"x":3.521401423515949,"y":4.418247298106969},"out":{"x":-3.521401423515949,"y":-4.418247298106969}}]};
const r=widen([path],6,{joins:'round',miterLimit:4},n=>'r'+n);
for(const p of r) console.log(p.map(q=>q.anchors.length+' '+pathArea(q).toFixed(4)).join(' | '));
const band=strokePieces([path],{width:12,ends:'round',joins:'round',miterLimit:4},0.02);
const A=arrange([[path],band]);
const polys=band.map(b=>flattenPath(b,0.0005)); const own=[flattenPath(path,0.0005)];
let bad=0;
for(const s of A.stretches){ const p=cubicPoint(s.cubic,0.5),t=cubicTangent(s.cubic,0.5);const L=Math.hypot(t.x,t.y); const n={x:-t.y/L,y:t.x/L};
 for(const [side,k] of [['right',0.002],['left',-0.002]] as const){const q={x:p.x+n.x*k,y:p.y+n.y*k}; const w=polys.reduce((a,g)=>a-windingNumber([g],q),0); const o=-windingNumber(own,q); if(w!==s[side][1]||o!==s[side][0]) {bad++; if(bad<12)console.log('bad',side,s[side],[o,w],p, JSON.stringify(s.sources.map(x=>[x.member,x.path,x.segment,+x.from.toFixed(4),+x.to.toFixed(4)])), L.toFixed(3))}}}
console.log(A.stretches.length,bad);
const has=(r:readonly number[])=> r[0]!%2!==0||r[1]!>0;
const B=A.stretches.filter(s=>has(s.left)!==has(s.right));
const deg=new Map<number,number>(); for(const s of B) for(const v of [s.start,s.end]) deg.set(v,(deg.get(v)??0)+1);
for(const [v,d] of deg) if(d%2) { console.log('odd',v,d,A.vertices[v]); for(const s of A.stretches) if(s.start===v||s.end===v) console.log('   ',s.start,s.end,s.left,s.right,has(s.left)!==has(s.right), JSON.stringify(s.sources.map(x=>[x.member,x.path,x.segment,x.from,x.to,x.reversed])), JSON.stringify(s.cubic)); }
