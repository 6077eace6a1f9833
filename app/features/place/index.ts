export { PlaceSheet } from './PlaceSheet'
