export * from './conflicts'
export * from './edits'
export * from './lines'
export { limitWords, listed, nameOf, tieWords } from './words'
