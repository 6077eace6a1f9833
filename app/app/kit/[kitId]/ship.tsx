export { ShipScreen as default } from '../../../features/ship'
