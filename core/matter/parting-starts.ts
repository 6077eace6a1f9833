import { broadFamily } from '../kit/families'
import type { BroadFamily, Family } from '../kit/families'

/** Where to begin dividing a hit: below `divideHz` its drum rings, above it what is steady for `steadyMs` does. */
export interface PartingStart {
  readonly divideHz: number
  readonly steadyMs: number
}

const starts: Partial<Record<BroadFamily, PartingStart>> = {
  kick: { divideHz: 120, steadyMs: 30 },
  snare: { divideHz: 180, steadyMs: 40 },
  tom: { divideHz: 250, steadyMs: 30 },
  hat: { divideHz: 0, steadyMs: 60 },
  cymbal: { divideHz: 0, steadyMs: 80 },
  bell: { divideHz: 0, steadyMs: 30 },
  wood: { divideHz: 200, steadyMs: 20 },
  clap: { divideHz: 0, steadyMs: 60 },
  shaker: { divideHz: 0, steadyMs: 60 },
}
const usual: PartingStart = { divideHz: 0, steadyMs: 30 }

export const partingStart = (family: Family | undefined): PartingStart => (family && starts[broadFamily(family)]) || usual
