export { MirrotError } from './error';
export { seeded } from './seed';

export type { Point } from './geometry/vector';
export {
  add,
  cross,
  distance,
  dot,
  length,
  mix,
  negate,
  point,
  scale,
  snapAngle,
  subtract,
  unit,
} from './geometry/vector';
export type { Affine } from './geometry/affine';
export {
  about,
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
} from './geometry/affine';
export type { Box } from './geometry/bounds';
export {
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
} from './geometry/bounds';
export type { Cubic } from './geometry/cubic';
export {
  CIRCLE_HANDLE,
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
} from './geometry/cubic';
export { nearestOnCubic } from './geometry/nearest';
export { flattenCubic, insideEvenOdd } from './geometry/flatten';

export type { Anchor, AnchorKind, HandleSide, NearestOnPath, Path } from './path/path';
export {
  anchorAt,
  corner,
  cubicBetween,
  flattenPath,
  nearestOnPath,
  otherSide,
  pathArea,
  pathBounds,
  pathCubics,
  pathLength,
  reversePath,
  segmentCount,
  segmentCubic,
  segmentIsLine,
  tangentAt,
  transformAnchors,
  transformPath,
  withAnchor,
} from './path/path';
export { insertAnchor } from './path/insert';
export { spareAnchors, thinOut, type Thinned, type ThinOptions } from './path/thin';
export { cutAt, mergeAnchors, startAt } from './path/cut';
export { evenSpots, extremeSpots, inflectionSpots, insertAnchors, type Spot } from './path/spots';
export { flowAll, flows, freezeFlow, hobbyLength, deriveFlow, type FlowOptions } from './path/flow';
export { fitCubic } from './path/fit';
export { meantSegments, setMeantSegments } from './path/meant';
export { crossedEdges, type Crossed } from './trace/across';
export { measureEconomy, type Economy } from './trace/economy';
export { leaveOut } from './trace/detail';
export { closePath, extendPath, type NextSegment } from './path/extend';
export { fitPath, type FitPathOptions } from './path/fit-path';
export { openSegment, removeAnchors } from './path/remove';
export {
  moveHandle,
  segmentBeside,
  setAnchorKind,
  setEqualLengths,
  turnHandles,
  withHandle,
} from './path/handle';
export {
  dragForm,
  fittedRadii,
  radiusAt,
  radiusGrip,
  fitsForm,
  FORM_KINDS,
  formPath,
  redrawForm,
  MOST_SIDES,
  FEWEST_SIDES,
  plainForm,
  type Form,
  type FormKind,
} from './path/form';
export {
  axisMaps,
  FEWEST_PARTS,
  liesOn,
  MOST_PARTS,
  mirrorPath,
  spreadPath,
  type Axis,
  type MirrorAxis,
  type TurnAxis,
} from './path/axis';
export { makeSymmetric, ownCentre, ownMirrorAxis, type Lead, type Symmetrical } from './path/symmetric';
export { bordersBetween, closeAlong, type Border, type Borders, type PathOf } from './path/share';
export { drawnTwice, type DoubleStretch } from './path/double';
export {
  faintLines,
  nearestAnchor,
  nearSegments,
  SNAP_KINDS,
  snapField,
  snapPoint,
  type Snapped,
  type SnapField,
  type SnapKind,
  type SnapLine,
  type SnapOffer,
  type SnapSpot,
} from './path/snap';
export { cubicIntersections, cubicLineIntersections, lineIntersection } from './geometry/intersect';
export { pullSegment, type PullOptions } from './path/pull';
export { joinEnds, type PathEnd } from './path/join';
export { formatPathData, parsePathData } from './path/data';

export type { Rgb } from './colour/srgb';
export { formatHex, fromLinear, normaliseHex, parseHex, toLinear } from './colour/srgb';
export { oklabToOklch, oklabToRgb, oklchToOklab, rgbToOklab, type Oklab, type Oklch } from './colour/oklab';
export { rgbToCielab, type Cielab } from './colour/cielab';
export { deltaE2000 } from './colour/difference';
export { contrastRatio } from './colour/contrast';

export { pixelAt, type Raster } from './picture/raster';
export { sampleDisc } from './picture/sample';
export { homography, invertHomography, project, type Homography } from './geometry/homography';
export { warpRaster } from './picture/warp';
export { takePhoto, takeScan, type Taken } from './picture/practice';
export { checkQuad, measuredAspect, squareUp, type Squared } from './geometry/square';
export { affineThrough } from './geometry/affine-through';
export { edgePicture, lineDrawing } from './picture/edges';
export { levelOffer, type LevelOffer } from './picture/level';
export { greyPicture } from './picture/lightness';
export { otsuLevels, toneSteps, type ToneOptions, type Tones } from './picture/tones';
export { projectPath, type Projected } from './path/project';
export { migrateArt } from './art/migrate';
export * from './art/placed-picture';
export * from './art/follow-picture';
export * from './art/paint';
export * from './art/paint-list';
export { shapeBounds } from './art/bounds';
export { pathInside, shapeHas } from './art/inside';
export { strokeBounds, type StrokeForm } from './path/stroke-bounds';

export * from './art/schema';
export { FARTHEST_COORDINATE } from './art/scalars';
export { formatLength, fromPx, PX_PER, toPx, UNIT_DIGITS, UNITS, type Unit } from './art/units';
export {
  ancestorsOf,
  anchorCount,
  byType,
  childrenOf,
  findNode,
  findShape,
  inPaintOrder,
  isParent,
  layerOf,
  outermost,
  parentOf,
  shapeIndex,
  shapesIn,
  shapesOf,
  tracedPicture,
  wholePaths,
  type Found,
  type ParentNode,
  type PlacedShape,
  type TreeNode,
} from './art/tree';
export {
  applyChecked,
  applyForeignPatches,
  applyPatches,
  artOfDraft,
  changeArt,
  previewArt,
  type Change,
  type CheckedArt,
  type Patch,
  type Recipe,
} from './art/change';
export { artSchema, checkChange, readArt } from './art/check';
export { holdingsOf, type Holdings } from './art/holdings';
export { artDifference } from './art/difference';
export { MOST_CHARACTERS } from './art/limits';
export { patchDocument, type Patched } from './art/patch';
export { same } from './art/same';
export { cutText, fitName, nameSchema } from './art/text';
export * from './art/edits';
export { drawnData, lineRuns } from './art/line-data';
export {
  canExtend,
  emptyHistory,
  extend,
  recall,
  record,
  redo,
  undo,
  type History,
  type MadeOn,
  type Moved,
  type Noted,
  type Step,
} from './art/history';
export { mergeArt, type Merged } from './art/merge';
export { artText } from './art/write';

export { nearestEdge } from './trace/edge';
export { halved } from './picture/halve';
export { symmetryAxis, type Symmetry } from './picture/symmetry';
export { chooseInk, haloOf, INK_GAIN, INKS, washed } from './trace/ink';
export { outputPictures, writeSvg, type SvgOptions } from './formats/svg/write';
export {
  blurRoom,
  coveringAttributes,
  gradientElement,
  shapeAttributes,
  type GradientElement,
  type Reference,
} from './formats/svg/attributes';
export { edgeField, lineField, type Field, type FieldKind, type FieldOptions } from './trace/tensor';
export { fieldTiles, tileAt, tilesOf, warmTile, type FieldTiles } from './trace/field';
export { measureDrift, type Drift, type DriftOptions, type Follow } from './trace/drift';
export { driftFigures, type DriftFigures } from './trace/figures';
export { settle, type Settled, type SettleOptions } from './trace/settle';
export { EDGE_BLUR, fieldFor, likelyFollow, lineBlur } from './trace/follow';
export {
  reach,
  reachLevel,
  reachMemory,
  type Reached,
  type ReachField,
  type ReachMemory,
  type ReachOptions,
  type ReachStart,
} from './trace/reach';
export { measureWeight, type StrokeWeight } from './trace/weight';
