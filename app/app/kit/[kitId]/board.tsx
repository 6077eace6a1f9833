export { BoardScreen as default } from '../../../features/board'
