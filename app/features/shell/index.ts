export { AppFrame } from './AppFrame'
export { KitShell } from './KitShell'
export { useKitId, useKit, usePads, editKit } from './use-kit'
export { useSession } from './session'
