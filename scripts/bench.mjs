// npm run bench: side-by-side measurements, as ratios.
import { buildApp, installDebian, installPackages, run } from './ready.mjs';

installPackages();
installDebian();
buildApp();
run('npx', ['tsx', 'bench/frames.ts']);
run('npx', ['tsx', 'bench/views.ts']);
run('npx', ['tsx', 'bench/drawing.ts']);
run('npx', ['tsx', 'bench/shaping.ts']);
run('npx', ['tsx', 'bench/stack.ts']);
run('npx', ['tsx', 'bench/combine.ts']);
run('npx', ['tsx', 'bench/tone.ts']);
run('npx', ['tsx', 'bench/colour.ts']);
run('npx', ['tsx', 'bench/bond.ts']);
run('npx', ['tsx', 'bench/drift.ts']);
run('npx', ['tsx', 'bench/live.ts']);
run('npx', ['tsx', 'bench/reach.ts']);
run('npx', ['tsx', 'bench/effort.ts']);
run('npx', ['tsx', 'bench/server.ts']);
run('npx', ['tsx', 'bench/outputs.ts']);
run('npx', ['tsx', 'bench/proof.ts']);
