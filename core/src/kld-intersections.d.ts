// Only what the tests call: the package ships no types.
declare module 'kld-intersections' {
  type Shape = { readonly name: string };
  export const ShapeInfo: { cubicBezier(...numbers: number[]): Shape };
  export const Intersection: {
    intersect(a: Shape, b: Shape): { readonly points: readonly { readonly x: number; readonly y: number }[] };
  };
}
