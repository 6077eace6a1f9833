import { wrap } from 'comlink'
import type { Remote } from 'comlink'

import type { CoreWork } from './core-work'
import type { ShipWork } from './ship-work'

let core: Remote<CoreWork> | undefined
let ship: Remote<ShipWork> | undefined

export function coreWork(): Remote<CoreWork> {
  core ??= wrap<CoreWork>(new Worker(new URL('./core.worker', window.location.href)))
  return core
}

export function shipWork(): Remote<ShipWork> {
  ship ??= wrap<ShipWork>(new Worker(new URL('./ship.worker', window.location.href)))
  return ship
}
