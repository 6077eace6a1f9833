import type { Kit } from './kit'
import type { KitFaces } from './wire'

/** Pads whose faces a list of kits shows. */
const FACES = 16

export function facesOf(kit: Kit): KitFaces {
  return { pads: kit.pads.length, faces: kit.pads.slice(0, FACES).map((pad) => pad.bands.map((band) => band.turns.length)) }
}
