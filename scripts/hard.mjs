// npm run hard: kills, hostile inputs, full disks, hours without the server: a table, and 1 when anything falls short.
import { spawnSync } from 'node:child_process';
import { buildApp, installDebian, installPackages, ROOT } from './ready.mjs';

installPackages();
installDebian();
buildApp();
const { status } = spawnSync('npx', ['tsx', 'hard/run.ts', ...process.argv.slice(2)], {
  cwd: ROOT,
  stdio: 'inherit',
});
process.exit(status ?? 1);
