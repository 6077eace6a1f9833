export { aKit, anImpulse, hashOf, seeded, testIds } from '../builders'
export { randomEdit } from './random-kit-edit'
export { randomKitOf } from './random-kit'
/** Kits as the first version wrote them, for devices and servers of then. */
export { asFirstKit } from '../version-1/as-first'
