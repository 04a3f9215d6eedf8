/** Whether two values of plain data are alike, down to their last part; what is one object is at once. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [one, two] = [a as Record<string, unknown>, b as Record<string, unknown>];
  const keys = Object.keys(one).filter((key) => one[key] !== undefined);
  return (
    keys.length === Object.keys(two).filter((key) => two[key] !== undefined).length &&
    keys.every((key) => same(one[key], two[key]))
  );
}
