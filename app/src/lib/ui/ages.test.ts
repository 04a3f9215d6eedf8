import { describe, expect, it } from 'vitest';
import { age, until } from './ages';

const now = Date.parse('2026-11-26T12:00:00Z');
const at = (seconds: number): string => new Date(now + seconds * 1000).toISOString();
const DAY = 86_400;

describe('times in words', () => {
  it('say how long ago something was', () => {
    expect([-30, -120, -3 * 3600, -DAY, -9 * DAY, -400 * DAY].map((s) => age(at(s), now))).toEqual([
      'just now',
      '2 minutes ago',
      '3 hours ago',
      'yesterday',
      'last week',
      'last year',
    ]);
  });

  it('say how long something lasts, in days up to a year', () => {
    expect([30 * DAY - 1, 12.4 * DAY, 5 * 3600, 90, 20].map((s) => until(at(s), now))).toEqual([
      'in 30 days',
      'in 12 days',
      'in 5 hours',
      'in 2 minutes',
      'very soon',
    ]);
  });
});
