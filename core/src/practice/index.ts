export { type Exercise, exerciseSchema, pathsInPicture, truthOf, type TruthShape } from './exercise';
export {
  drawnShapes,
  type DrawnShape,
  FAR_PX,
  scoreDrawing,
  type Nearness,
  type Score,
  type ShapeScore,
} from './score';
export { ADVICE, coach, type Advice, type AdviceCode } from './coach';
