export {
  type Exercise,
  exerciseSchema,
  pathsInPicture,
  pathsOnSheet,
  truthOf,
  type TruthShape,
} from './exercise';
export {
  drawnShapes,
  type DrawnShape,
  FAR_PX,
  isScore,
  type Measure,
  scoreDrawing,
  scoreSchema,
  type Score,
  type ShapeScore,
} from './score';
export { ADVICE, coach, type Advice, type AdviceCode } from './coach';
export {
  bestAttempt,
  effortSchema,
  type Effort,
  type KeptAttempt,
  MOST_ATTEMPTS,
  practisedSchema,
  type Practised,
  workIn,
} from './attempt';
export { ghostOf, type GhostFrame } from './ghost';
