export { GrooveScreen as default } from '../../../features/groove'
