export { PerformancesScreen as default } from '../../../features/performances'
