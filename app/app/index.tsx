export { KitsScreen as default } from '../features/kits'
