// npm run hard: what Mirrot has to withstand, in full. A table of figures; ends with 1 when anything falls short.
import { backup, disks, twoFirstStarts, startersEnd, twoInstallations } from './disks';
import type { Finding } from './harness';
import { hostileInputs } from './hostile';
import { killsAtFirstStart, killsAtUpgrade, killsWhileEditing } from './kills';
import { offlineHour, threeTabs } from './pages';
import { journalSize, shelf, soak } from './soak';

const MINUTE = 60;

const TRIES: readonly (readonly [name: string, run: () => Promise<Finding[]>])[] = [
  ['kills while editing', () => killsWhileEditing(60)],
  ['kills at the first start', () => killsAtFirstStart(20)],
  ['kills during an upgrade', () => killsAtUpgrade(20)],
  ['hostile inputs', () => hostileInputs(1500)],
  ['disks', disks],
  ['two first starts', twoFirstStarts],
  ['two installations', twoInstallations],
  ['a starter that is killed', startersEnd],
  ['a backup', backup],
  ['an hour without the server', () => offlineHour(60)],
  ['three tabs', () => threeTabs(6)],
  ['the journal', () => journalSize(10_000)],
  ['the shelf', () => shelf(500, 200)],
  ['soak', () => soak(5000, 10 * MINUTE)],
];

const only = process.argv.slice(2);
const all: Finding[] = [];
for (const [name, run] of TRIES) {
  if (only.length > 0 && !only.some((word) => name.includes(word))) continue;
  console.log(`\n${name} …`);
  let found: Finding[];
  try {
    found = await run();
  } catch (error) {
    found = [{ what: name, found: String(error).slice(0, 300), wanted: 'no error', holds: false }];
  }
  for (const { what, found: is, wanted, holds } of found)
    console.log(`${holds ? '  ' : '✗ '}${what.padEnd(70)} ${is.padStart(14)}   (${wanted})`);
  all.push(...found);
}
const short = all.filter((f) => !f.holds);
console.log(`\n${all.length - short.length} of ${all.length} hold.`);
for (const { what, found, wanted } of short) console.log(`✗ ${what}: ${found}, wanted ${wanted}`);
process.exit(short.length > 0 ? 1 : 0);
