import { describe, expect, it } from 'vitest';
import { backup, disks, twoFirstStarts, startersEnd, twoInstallations } from './disks';
import type { Finding } from './harness';
import { hostileInputs } from './hostile';
import { killsAtFirstStart, killsAtUpgrade, killsWhileEditing } from './kills';
import { journalSize, shelf, soak } from './soak';

// A short version of `npm run hard`, against the built server. How quick things are is told there and in the bench, on a
// machine that does nothing else: here only what must hold on any.

const TIME = 180_000;
/** Figures of time and memory: told, not judged. */
const isFigure = ({ found }: Finding): boolean => / ms$/.test(found) || /^\d+$/.test(found) === false && /MB$/.test(found) && found.includes('gained'); // prettier-ignore

const hold = (findings: readonly Finding[], judged: (f: Finding) => boolean = () => true): void =>
  expect(findings.filter((f) => !f.holds && judged(f))).toEqual([]);

describe('withstands', () => {
  it('kills while editing', async () => hold(await killsWhileEditing(3)), TIME);
  it('kills at the first start', async () => hold(await killsAtFirstStart(2)), TIME);
  it('kills during an upgrade', async () => hold(await killsAtUpgrade(2)), TIME);
  it('hostile inputs', async () => hold(await hostileInputs(160), (f) => !f.what.includes('longest')), TIME);
  it('full, unwritable, damaged, newer, taken', async () => hold(await disks()), TIME);
  it('a backup while it writes', async () => hold(await backup()), TIME);
  it('two installations at once', async () => hold(await twoInstallations()), TIME);
  it('a starter that is killed', async () => hold(await startersEnd()), TIME);
  it('two first starts at once', async () => hold(await twoFirstStarts()), TIME);
  it('a drawing of 1,000 shapes, with what a change writes', async () => hold(await soak(1000, 3), (f) => !isFigure(f) && !f.what.includes('memory')), TIME); // prettier-ignore
  it(
    'a long journal, a full shelf',
    async () => {
      hold(await journalSize(1000));
      hold(await shelf(20, 5), () => false);
    },
    TIME,
  );
});
