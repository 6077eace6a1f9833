export { GrooveScreen } from './GrooveScreen'
