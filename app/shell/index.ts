export { AppFrame } from './AppFrame'
export { KitShell } from './KitShell'
export { SaveMark } from './SaveMark'
