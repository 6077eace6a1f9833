export { ShipScreen } from './ShipScreen'
