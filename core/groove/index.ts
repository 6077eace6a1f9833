export { createGroove, grooveSeconds, grooveStrikes, secondsPerStep, stepSeconds, withBead } from './groove'
export type { GrooveStrike } from './groove'
export { notesSchema, scoreOfNotes } from './notes'
export type { Notes } from './notes'
