export { CutScreen as default } from '../../../features/cut'
