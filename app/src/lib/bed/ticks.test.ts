import { describe, expect, it } from 'vitest';
import { rulerTicks } from './ticks';

// Source: CSS Values 4 (96 px to the inch).
describe('a ruler', () => {
  it('counts in the unit, numbers far enough apart at every zoom', () => {
    for (const scale of [0.01, 0.3, 1, 7.7, 200])
      for (const unit of ['mm', 'cm', 'in', 'px'] as const) {
        const numbered = rulerTicks(scale, 33, 900, unit).filter((t) => t.text !== null);
        expect(numbered.length).toBeGreaterThan(2);
        numbered.slice(1).forEach((t, i) => expect(t.at - numbered[i]!.at).toBeGreaterThanOrEqual(56 - 1e-6));
        expect(new Set(numbered.map((t) => t.text)).size).toBe(numbered.length);
      }
  });

  it('puts an inch at 96 sheet pixels and nought where the sheet begins', () => {
    const ticks = rulerTicks(1, 100, 900, 'in');
    expect(ticks.find((t) => t.text === '0')!.at).toBe(100);
    expect(ticks.find((t) => t.text === '1')!.at).toBeCloseTo(196, 9);
  });
});
