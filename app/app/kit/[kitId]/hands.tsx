export { HandsScreen as default } from '../../../features/hands'
