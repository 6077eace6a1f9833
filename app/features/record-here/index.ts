export { RecordHereSheet } from './RecordHereSheet'
