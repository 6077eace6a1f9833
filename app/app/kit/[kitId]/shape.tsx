export { ShapeScreen as default } from '../../../features/shape'
