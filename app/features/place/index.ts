export { DropOnPads } from './DropOnPads'
export { placeEdits, placeFiles } from './place-files'
export { useLoudness } from './use-loudness'
export { PlaceSheet } from './PlaceSheet'
