export { ShapeScreen } from './ShapeScreen'
