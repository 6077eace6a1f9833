export { CutScreen } from './CutScreen'
