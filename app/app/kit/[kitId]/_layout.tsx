export { KitShell as default } from '../../../features/shell'
