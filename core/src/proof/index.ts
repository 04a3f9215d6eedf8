export { type Finding, FINDING_KINDS, type FindingKind, TOLERANCES, type Tolerances } from './finding';
export { findings, fixAll, fixFor } from './findings';
