export { DropOnPads } from './DropOnPads'
export { PlaceSheet } from './PlaceSheet'
