export {
  about,
  type Affine,
  apply,
  applyLinear,
  compose,
  determinant,
  IDENTITY,
  invert,
  meanScale,
  rotation,
  scaling,
  translation,
} from './affine';
export { toDegrees, toRadians } from './angle';
export { affineThrough } from './affine-through';
export {
  type Box,
  boxCentre,
  boxesMeet,
  boxHas,
  boxHeight,
  boxOfPoints,
  boxWidth,
  EMPTY_BOX,
  growBox,
  isEmptyBox,
  mappedCorners,
  uniteBoxes,
} from './bounds';
export {
  CIRCLE_HANDLE,
  type Cubic,
  cubicArea,
  cubicBounds,
  cubicCurvature,
  cubicDerivative,
  cubicExtrema,
  cubicInflections,
  cubicLength,
  cubicPoint,
  cubicTangent,
  isStraight,
  lineCubic,
  splitCubic,
} from './cubic';
export { flattenCubic, insideEvenOdd } from './flatten';
export { homography, type Homography, invertHomography, project } from './homography';
export { cubicIntersections, cubicLineIntersections, lineIntersection } from './intersect';
export { nearestOnCubic } from './nearest';
export { markInside, type PlaceGrid } from './scanline';
export { checkQuad, measuredAspect, type Squared, squareUp } from './square';
export {
  add,
  cross,
  distance,
  dot,
  length,
  mix,
  negate,
  type Point,
  point,
  scale,
  snapAngle,
  subtract,
  unit,
} from './vector';
export { cubicOverlap, type Overlap } from './overlap';
