const UNITS: readonly (readonly [Intl.RelativeTimeFormatUnit, number])[] = [
  ['year', 365 * 86_400],
  ['month', 30 * 86_400],
  ['week', 7 * 86_400],
  ['day', 86_400],
  ['hour', 3_600],
  ['minute', 60],
];

const words = new Intl.RelativeTimeFormat('en-GB', { numeric: 'auto' });

/** How long until a time: "in 12 days", "in 3 hours", "very soon". */
export function until(iso: string, now = Date.now()): string {
  const seconds = (Date.parse(iso) - now) / 1000;
  const unit = UNITS.find(([name, size]) => name !== 'month' && name !== 'week' && seconds >= size);
  return unit ? words.format(Math.round(seconds / unit[1]), unit[0]) : 'very soon';
}

/** How long ago a time was: "3 hours ago", "yesterday", "just now". */
export function age(iso: string, now = Date.now()): string {
  const seconds = (now - Date.parse(iso)) / 1000;
  const unit = UNITS.find(([, size]) => seconds >= size);
  return unit ? words.format(-Math.floor(seconds / unit[1]), unit[0]) : 'just now';
}
