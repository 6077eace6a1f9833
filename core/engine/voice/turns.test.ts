import { aKit, aTone, seeded } from '../../kit/builders'
import type { Kit, Turn } from '../../kit/kit'
import { parameterRow, parametersOf } from '../../kit/parameters'
import { rayOfTurn } from '../../kit/resolve'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'

const RATE = 48000
const tone = aTone(9000, 0.2, RATE, 700)

function struck(kit: Kit, audio: Map<string, typeof tone>, strikes: number): Float32Array[] {
  const { engine, loader } = createOffline(kit, RATE, (hash) => audio.get(hash))
  const padSlot = loader.slotOf(kit.pads[0].id)
  const events = Array.from({ length: strikes }, (_, i) => ({ frame: i * 12000, type: EventType.strike, padSlot, velocity: 127 }))
  return renderOffline(engine, toScore(events), strikes * 12000)
}

/** What a turn may have of its own, drawn at random. */
function anyShape(random: () => number): Partial<Turn> {
  const values = Object.fromEntries(
    parametersOf('turn')
      .filter((name) => parameterRow(name).played.includes('turn') && random() < 0.4)
      .map((name) => {
        const { min, max, usual } = parameterRow(name)
        const far = { gainDb: 12, tuneCents: 2400, startSeconds: 0.02, delaySeconds: 0.01, decayScale: 0.5 }[name as 'gainDb'] ?? Infinity
        return [name, Math.min(max, usual + far, Math.max(min, usual - far, min + (max - min) * random()))]
      }),
  )
  const points = [{ seconds: 0, value: random(), bend: 0 }, { seconds: 0.01 + 0.1 * random(), value: random(), bend: random() - 0.5 }] // prettier-ignore
  const kinds = ['off', 'lowPass', 'notch', 'peak'] as const
  return {
    values,
    choices: { filter1Kind: kinds[Math.floor(4 * random())], filter2Kind: kinds[Math.floor(4 * random())] },
    envelopes:
      random() < 0.5 ? { level: { points } } : { pitch: { points: points.map((point) => ({ ...point, value: 900 * point.value })) } },
  }
}

test('a turn with a shape of its own sounds as a ray that has that shape, its neighbour as ever', () => {
  const random = seeded(81)
  for (let i = 0; i < 25; i++) {
    const { kit, audio } = aKit([{ own: { values: { gainDb: -9, pan: 0.2 }, pick: 'cycle' }, bands: [[tone, tone]] }])
    const [pad] = kit.pads
    const shape = anyShape(random)
    const [first, second] = pad.bands[0].turns
    const shaped = { ...pad, bands: [{ ...pad.bands[0], turns: [first, { ...second, ...shape }] }] }
    const moved = { ...pad, rays: [rayOfTurn(pad.rays[0], { ...second, ...shape })], bands: [{ ...pad.bands[0], turns: [second] }] }
    const [left, right] = struck({ ...kit, pads: [shaped] }, audio, 2)
    const alone = struck({ ...kit, pads: [{ ...pad, bands: [{ ...pad.bands[0], turns: [first] }] }] }, audio, 1)
    const there = struck({ ...kit, pads: [moved] }, audio, 1)
    ;[left, right].forEach((side, s) => {
      expect(side.subarray(0, 12000)).toEqual(alone[s])
      expect(side.subarray(12000)).toEqual(there[s])
    })
  }
})
