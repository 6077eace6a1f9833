export { HandsScreen } from './HandsScreen'
export { PracticePage } from './practice/PracticePage'
