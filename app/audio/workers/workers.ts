import { wrap } from 'comlink'
import type { Remote } from 'comlink'

import type { CoreWork } from './core-work'
import type { MatterWork } from './matter-work'
import type { ShipWork } from './ship-work'

let core: Remote<CoreWork> | undefined
let ship: Remote<ShipWork> | undefined
let matter: { readonly worker: Worker; readonly work: Remote<MatterWork> } | undefined

export function coreWork(): Remote<CoreWork> {
  core ??= wrap<CoreWork>(new Worker(new URL('./core.worker', window.location.href)))
  return core
}

/** Nothing more is decoded for now, where anything was. */
export function tidyCoreWork(): void {
  void core?.tidy()
}

export function shipWork(): Remote<ShipWork> {
  ship ??= wrap<ShipWork>(new Worker(new URL('./ship.worker', window.location.href)))
  return ship
}

export function matterWork(): Remote<MatterWork> {
  if (!matter) {
    const worker = new Worker(new URL('./matter.worker', window.location.href))
    matter = { worker, work: wrap<MatterWork>(worker) }
  }
  return matter.work
}

/** Ends what it is at in the middle; whoever waits for it waits in vain. */
export function stopMatterWork(): void {
  matter?.worker.terminate()
  matter = undefined
}
