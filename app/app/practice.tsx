export { PracticePage as default } from '../features/hands'
