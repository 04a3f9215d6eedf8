// npm test: everything the tests need, all tests, one count at the end.
import { mkdtempSync, readFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildApp, installDebian, installPackages, ROOT } from './ready.mjs';

installPackages();
installDebian();
buildApp();

const results = mkdtempSync(join(tmpdir(), 'mirrot-tests-'));
const unitFile = join(results, 'unit.json');
const pageFile = join(results, 'page.json');
const options = { cwd: ROOT, stdio: 'inherit' };

spawnSync(
  'npx',
  ['vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${unitFile}`],
  options,
);
spawnSync('npx', ['playwright', 'test', '--reporter=list,json'], {
  ...options,
  env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: pageFile },
});

const read = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
};
const unit = read(unitFile);
const page = read(pageFile)?.stats;
const passed = (unit?.numPassedTests ?? 0) + (page?.expected ?? 0) + (page?.flaky ?? 0);
// A runner that did not get to its end counts as a failure; so does a file that could not be loaded.
const failed =
  (unit ? unit.numFailedTests + (unit.success || unit.numFailedTests > 0 ? 0 : 1) : 1) +
  (page ? page.unexpected : 1);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);
