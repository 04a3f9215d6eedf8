export { type DrawingFigures, drawingFigures } from './drawing-figures';
export {
  type DriftedPlace,
  type Finding,
  FINDING_KINDS,
  type FindingKind,
  type MeasuredPath,
  TOLERANCES,
  type Tolerances,
} from './finding';
export { canMend, findings, fixAll, fixFor } from './findings';
