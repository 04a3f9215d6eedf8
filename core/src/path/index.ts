export {
  combine,
  combineAll,
  type Combined,
  type Combining,
  COMBININGS,
  splitUp,
  type SplitPiece,
} from './combine';
export { type Bridge, deepestPoint, type Enclosed, type EnclosedArea, enclosedAreas } from './enclosed';
export type { StrokeOutline } from './stroke-pieces';
export { type ClosedMisses, closeNearMisses } from './near-miss';
export { type LaidLines, seenLines } from './seen-lines';
export { strokeToShape, widen, type WidenJoins } from './stroke-to-shape';
export {
  crossingPlaces,
  type CrossingPlace,
  type LinePiece,
  type LinePieces,
  linePieces,
  pieceAt,
  piecesUnder,
  type Weeded,
  withoutPieces,
} from './weed';
export { type Anchor, type AnchorKind, corner, type HandleSide, otherSide } from './anchor';
export {
  type Axis,
  axisMaps,
  FEWEST_PARTS,
  liesOn,
  type MirrorAxis,
  mirrorMap,
  mirrorPath,
  MOST_PARTS,
  spreadPath,
  type TurnAxis,
} from './axis';
export { type Border, type Borders, bordersBetween, closeAlong, type PathOf } from './border';
export { cutAt, mergeAnchors, startAt } from './cut';
export { formatPathData, parsePathData } from './data';
export { type DoubleStretch, drawnTwice } from './double';
export { closePath, extendPath, type NextSegment } from './extend';
export { faintLines } from './faint-lines';
export { fitCubic } from './fit';
export { fitPath, type FitPathOptions } from './fit-path';
export { deriveFlow, flowAll, type FlowOptions, flows, freezeFlow, hobbyLength } from './flow';
export {
  FEWEST_SIDES,
  fittedRadii,
  type Form,
  FORM_KINDS,
  type FormKind,
  MOST_SIDES,
  plainForm,
} from './form';
export { dragForm, radiusAt, radiusGrip } from './form-drag';
export { fitsForm, formPath, redrawForm } from './form-path';
export { moveHandle, segmentBeside, setAnchorKind, setEqualLengths, turnHandles, withHandle } from './handle';
export { insertAnchor } from './insert';
export { joinEnds, type PathEnd } from './join';
export { meantSegments, setMeantSegments } from './meant';
export { openSegment } from './open-segment';
export { ownCentre, ownMirrorAxis } from './own-axis';
export type { Lead } from './pairing';
export {
  anchorAt,
  cubicBetween,
  type Path,
  pathCubics,
  segmentCount,
  segmentCubic,
  segmentIsLine,
  tangentAt,
  withAnchor,
} from './path';
export { reversePath, transformAnchors, transformPath } from './path-map';
export {
  flattenPath,
  type NearestOnPath,
  nearestOnPath,
  pathArea,
  pathBounds,
  lengthTo,
  pathLength,
} from './path-measure';
export { type Projected, projectPath } from './project';
export { type PullOptions, pullSegment } from './pull';
export { removeAnchors } from './remove';
export {
  SNAP_KINDS,
  type SnapKind,
  type SnapLine,
  type SnapOffer,
  type Snapped,
  snapPoint,
  type SnapSpot,
} from './snap';
export { crossingsOf, nearestAnchor, nearSegments, snapField, type SnapField } from './snap-field';
export { evenSpots, extremeSpots, inflectionSpots, insertAnchors, type Spot } from './spots';
export { strokeBounds, type StrokeForm } from './stroke-bounds';
export { makeSymmetric, type Symmetrical } from './symmetric';
export { spareAnchors, type Thinned, type ThinOptions, thinOut } from './thin';
export type { PenStroke } from './pen-stroke';
