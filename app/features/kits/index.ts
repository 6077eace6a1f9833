export { KitsScreen } from './KitsScreen'
