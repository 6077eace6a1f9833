export { useKitId, useKit, usePads, editKit } from './use-kit'
export { useSession } from './session'
