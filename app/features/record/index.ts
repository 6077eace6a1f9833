export { LiveWave } from './LiveWave'
export { RecordButton } from './RecordButton'
export { RecordPanel } from './RecordPanel'
export { RescueOffer } from './RescueOffer'
