export {
  EVIDENCE_SECONDS,
  type Evidence,
  type Facts,
  type Pin,
  type PinAction,
  type ProposedSituation,
  type Series,
  type Span,
  type Sweep,
  type SweepPoint,
} from './evidence.js';
export { evidenceCsv } from './evidence-csv.js';
export type { TableProblem, TableReading } from './table.js';
export * from './workbench.js';
