import { createBand, createBus, createKit, createPad, createTurn } from '@heliaster/core/kit'
import type { Kit, Pad, Turn } from '@heliaster/core/kit'

import { makeId } from '../documents/make-id'
import { whyHardlyHeard, whySilent } from './why-silent'

const bus = { ...createBus('bus-1' as never, 'Room'), mute: true }

function kitOf(change: (pad: Pad) => Pad, more: Partial<Kit> = {}): Kit {
  const pad = createPad(makeId, { name: 'Oar' }, 40)
  const clip = { audio: 'a'.repeat(64), startFrame: 0, endFrame: 9 } as never
  const filled = { ...pad, bands: [createBand(makeId, 1, [createTurn(makeId, { [pad.rays[0].id]: clip })]), createBand(makeId, 64, [])] }
  return { ...createKit(makeId, 'K'), pads: [change(filled)], ...more }
}

const why = (kit: Kit, velocity = 30, turn = 0, soloPads: Pad['id'][] = []) =>
  whySilent(kit, { padId: kit.pads[0].id, velocity, band: 0, turn }, { pads: soloPads, rays: [], buses: [], bands: [], turns: [] })
const withClips = (clips: Turn['clips']) => (pad: Pad) => ({ ...pad, bands: [createBand(makeId, 1, [createTurn(makeId, clips)])] })

test('a silent strike says which of all reasons it is', () => {
  const same = (pad: Pad) => pad
  expect(why(kitOf((pad) => ({ ...pad, bands: [] })))).toBe('silent: nothing is on it')
  expect(why(kitOf((pad) => ({ ...pad, own: { ...pad.own, mute: true } })))).toBe('silent: the pad is muted')
  expect(why(kitOf(same), 100, -1)).toBe('silent: no clip answers velocity 100')
  expect(why(kitOf(same), 30, 0, ['another' as never])).toBe('silent: another pad sounds alone')
  expect(why(kitOf((pad) => ({ ...pad, rays: pad.rays.map((ray) => ({ ...ray, mute: true })) })))).toBe('silent: all its rays are muted')
  expect(why(kitOf((pad) => ({ ...pad, own: { ...pad.own, bus: bus.id } }), { buses: [bus] }))).toBe('silent: its bus is muted')
  expect(why(kitOf(withClips({})))).toBe('silent: band 1, turn 1 has no clip')
  expect(why(kitOf((pad) => withClips({ [pad.rays[0].id]: 'intendedSilence' })(pad)))).toBe('silent: band 1, turn 1 is silent on purpose')
  expect(why(kitOf((pad) => ({ ...pad, own: { ...pad.own, mode: 'silencer' } })))).toBe('it only silences others')
  expect(why(kitOf(same))).toBe('silent: its sound has not arrived yet')
})

test('a level at the bottom is named, the nearest to the whole first', () => {
  const quiet = kitOf((pad) => ({ ...pad, own: { ...pad.own, values: { gainDb: -60 } } }))
  const of = (kit: Kit) => whyHardlyHeard(kit, kit.pads[0].id)
  expect(of(kitOf((pad) => pad))).toBeUndefined()
  expect(of(quiet)).toBe('hardly heard: the pad’s level is -60 dB')
  expect(of({ ...quiet, values: { gainDb: -48 } })).toBe('hardly heard: the whole kit is at -48 dB')
  const low = { ...bus, mute: false, values: { gainDb: -50 } }
  expect(of(kitOf((pad) => ({ ...pad, own: { bus: low.id } }), { buses: [low] }))).toBe(
    'hardly heard: the level of its bus is at the bottom',
  )
})
