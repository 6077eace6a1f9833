export { BoardScreen } from './BoardScreen'
