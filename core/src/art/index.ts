export { chipUses } from './chip-uses';
export { followGrowth, type Grown, type GrownChange, type Growth, PAUSE_MS, withTracedLines } from './growth';
export { coveringOutlines, coversPicture, pictureOutline } from './covering';
export { areaByColour, type ColourShare } from './area-by-colour';
export * from './blank';
export { shapeBounds } from './bounds';
export {
  applyChecked,
  applyForeignPatches,
  applyPatches,
  artOfDraft,
  type Change,
  changeArt,
  type CheckedArt,
  type Patch,
  previewArt,
  type Following,
  type Recipe,
} from './change';
export { artSchema, checkChange, readArt } from './check';
export { type ArtComparison, compareArt } from './compare';
export { cutoutParts, type CutoutParts } from './cutout';
export { artDifference } from './difference';
export * from './edits';
export { followLines } from './follow-lines';
export * from './follow-picture';
export {
  canExtend,
  emptyHistory,
  extend,
  type History,
  type MadeOn,
  type Moved,
  type Noted,
  recall,
  record,
  redo,
  type Step,
  undo,
} from './history';
export { type Holdings, holdingsOf } from './holdings';
export { pathInside, polygonOf, shapeHas } from './inside';
export {
  ART_VERSION,
  DARKEST_GROUND,
  FARTHEST_COORDINATE,
  MOST_CHARACTERS,
  MOST_CHIPS,
  MOST_COLOURWAYS,
  MOST_COPIES,
  WIDEST_EDGE,
} from './limits';
export { drawnData, lineRuns } from './line-data';
export { type Merge, mergeArt, type Merged } from './merge';
export { migrateArt } from './migrate';
export { neighboursOf } from './neighbours';
export { type Output, type OutputArea, outputBox, outputOf, type OutputRange } from './output';
export * from './paint';
export * from './paint-kinds';
export * from './paint-list';
export { patchDocument, type Patched } from './patch';
export * from './picture-view';
export * from './placed-picture';
export { copiedShapes, type CopiedShape, copyMaps, isWholeRing, outlineBox, WHOLE_TURN } from './repeat';
export { same } from './same';
export * from './schema';
export { cutText, fitName, nameProblem, numberedName } from './text';
export { nameSchema, noteSchema } from './text-schema';
export {
  ancestorsOf,
  anchorCount,
  byType,
  childrenOf,
  findNode,
  findShape,
  type Found,
  inPaintOrder,
  nodesBeside,
  nodesOf,
  nodeNames,
  isParent,
  layerOf,
  openShapes,
  outermost,
  type ParentNode,
  parentOf,
  type PlacedShape,
  placedById,
  shapeById,
  shapesIn,
  shapesOf,
  tracedPicture,
  type TreeNode,
  wholePaths,
} from './tree';
export { formatLength, fromPx, PX_PER, toPx, type Unit, UNIT_DIGITS, UNITS } from './units';
export { artText } from './write';
