export { NoSuchPage as default } from '../shell'
