import { createIds } from '@heliaster/core/kit'

/** Ids for everything made on this device. */
export const makeId = createIds(() => crypto.getRandomValues(new Uint32Array(1))[0] / 4294967296)
