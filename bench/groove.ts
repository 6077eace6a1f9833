import { createOffline, EventType, renderOffline, toScore } from '@heliaster/core/engine'
import { withBeads } from '@heliaster/core/groove'
import { kitKind, makeChange } from '@heliaster/core/kit'
import type { Groove, Kit } from '@heliaster/core/kit'
import { aKit, anImpulse } from '@heliaster/core/kit/testing'

import type { Figure } from './figure'
import { median } from './figure'

const STRINGS = 128
const BEADS = 128
const RATE = 48000
const RUNS = 15

/** What an edit of one bead costs in a groove of 128 strings and 1024 steps with 16,384 beads, against the whole of it compiled anew. */
export function figuresOfGroove(): Record<string, Figure> {
  const rig = aKit(Array.from({ length: STRINGS }, () => ({ bands: [[anImpulse(40)]] })))
  const pads = rig.kit.pads.map((pad) => ({ ...pad, notes: [] }))
  const strings = pads.map(({ id }) => ({ padId: id, beads: Array.from({ length: BEADS }, (_, i) => ({ id: `${id}.${i * 8}` as never, step: i * 8, velocity: 100 })) })) // prettier-ignore
  const groove: Groove = { id: 'groove-a' as never, name: '', lengthSteps: 1024, stepsPerBeat: 4, swing: 0.5, strings }
  let kit: Kit = { ...rig.kit, pads, grooves: [groove] }
  const { engine, loader } = createOffline(kit, RATE, (hash) => rig.audio.get(hash))
  renderOffline(engine, toScore([{ frame: 0, type: EventType.groove, padSlot: 0 }]), 4800)
  const timed = (make: () => Kit): { readonly change: number; readonly load: number } => {
    const from = performance.now()
    kit = make()
    const made = performance.now()
    loader.load(kit)
    const loaded = performance.now()
    renderOffline(engine, toScore([]), 4800)
    return { change: made - from, load: loaded - made }
  }
  const one = Array.from({ length: RUNS }, (_, i) => timed(() => makeChange(kitKind, kit, [{ type: 'putGroove', groove: withBeads(kit.grooves[0], new Set([strings[i].beads[3].id]), () => ({ velocity: 20 + i })) }]).doc)) // prettier-ignore
  const all = Array.from({ length: RUNS }, (_, i) => timed(() => ({ ...kit, grooves: [{ ...kit.grooves[0], swing: 0.5 + i / 100 }] })))
  return {
    'groove.beadMs': { value: median(one.map(({ change, load }) => change + load)), unit: `ms, one bead of ${STRINGS * BEADS} edited, checked and compiled` },
    'groove.beadToAll': { value: median(one.map(({ load }) => load)) / median(all.map(({ load }) => load)), unit: 'times what all of it takes to compile', peer: 'every string compiled anew, in the same run' },
  }
} // prettier-ignore
