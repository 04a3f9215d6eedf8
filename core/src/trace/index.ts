export { type Bar, barAt } from './bar-at';
export { type BodyTone, bodyTone, borderBlur, type ToneGroup, type ToneWish } from './body-tone';
export { type Crossed, crossedEdges } from './across';
export { ownColour } from './own-colour';
export { type Drift, type DriftOptions, type Follow, measureDrift } from './drift';
export { type Economy, measureEconomy } from './economy';
export { nearestEdge } from './edge';
export type { Light } from './edge-profile';
export { edgeField } from './edge-field';
export type { Field, FieldKind, FieldOptions } from './field';
export {
  EDGE_BLUR,
  edgeTiles,
  FINEST_BLUR,
  fieldTiles,
  type FieldTiles,
  tileAt,
  tilesOf,
  warmTile,
} from './field-tiles';
export { driftFigures, type DriftFigures } from './figures';
export { fieldFor, likelyFollow, lineBlur } from './follow';
export { chooseInk, haloOf, INK_GAIN, INKS, washed } from './ink';
export { fitGradient, type FittedGradient } from './gradient-fit';
export { groundLight } from './ground-light';
export { type Cover } from './covers';
export { leaveOut } from './leave-out';
export { lineField } from './line-field';
export {
  reach,
  type ReachField,
  reachLevel,
  halvedAbout,
  reachMemory,
  type ReachMemory,
  type ReachOptions,
  type ReachStart,
} from './reach';
export type { Reached } from './reach-offer';
export { coveredShare } from './covered-share';
export { settle, type Settled, type SettleOptions } from './settle';
export { measureWeight, type StrokeWeight } from './weight';
