export { naturalBreaks } from './natural-breaks'
export { compareNames } from './natural-order'
export { asBands, asTurns, byLoudness, evenEdges, suggestBands } from './place'
export type { LoudClip } from './place'
