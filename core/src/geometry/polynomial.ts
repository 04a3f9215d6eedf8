/** Real roots of a·x² + b·x + c. Uses the form without cancellation (Press et al., Numerical Recipes, 5.6). */
export function quadraticRoots(a: number, b: number, c: number): number[] {
  const size = Math.max(Math.abs(a), Math.abs(b), Math.abs(c));
  if (size === 0) return [];
  if (Math.abs(a) <= 1e-14 * size) return Math.abs(b) <= 1e-14 * size ? [] : [-c / b];
  const discriminant = b * b - 4 * a * c;
  if (discriminant < 0) return [];
  const q = -0.5 * (b + (b < 0 ? -1 : 1) * Math.sqrt(discriminant));
  if (q === 0) return [0];
  return [q / a, c / q];
}
