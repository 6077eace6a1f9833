export { AppFrame } from './AppFrame'
export { NoSuchPage } from './NoSuchPage'
export { KitShell } from './KitShell'
export { SaveMark } from './SaveMark'
