export { chosenByRule, chosenWithin } from './choose'
export type { ChooseRule } from './choose'
export {
  asVelocity,
  copiedBeads,
  drawn,
  louderBy,
  movedBeads,
  pasted,
  ramped,
  stretched,
  withBeads,
  withLaterBeads,
  withNewBead,
  withoutBeads,
} from './edits'
export type { Copied, Edited } from './edits'
export { beadById, beadIdAt, beadsOf, divisionOf, inOrder, placeAt, stepsOf, straightBeat, stringOf, takenIds } from './places'
export type { PlacedBead } from './places'
