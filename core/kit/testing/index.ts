export { aKit, anImpulse, hashOf, seeded, testIds } from '../builders'
export { randomEdit } from './random-kit-edit'
