export { readTable } from './read-table'
export type { TablePad, TableReading } from './read-table'
export {
  drumTable,
  openingsOf,
  openWords,
  readPads,
  tableEdits,
  tableProposed,
  tablesSaid,
  withCell,
  withOpening,
  withThreshold,
} from './table'
export type { DrumTable, TableCell } from './table'
