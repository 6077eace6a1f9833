export { PerformancesScreen } from './PerformancesScreen'
