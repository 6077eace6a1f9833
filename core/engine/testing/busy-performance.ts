import type { Audio } from '../../audio/audio'
import { createIds } from '../../kit/ids'
import type { AudioHash, PadId } from '../../kit/ids'
import type { Kit, OwnSettings } from '../../kit/kit'
import { createBand, createKit, createPad, createTurn, wholeClip } from '../../kit/make'
import { responseTo } from '../../kit/responses'
import { EventType } from '../program/codes'

/** A kit and a performance that use everything the engine has, from a seed. Samples are whole 16-bit steps, so that they travel exactly. */
export function busyPerformance(seconds: number, rate: number) {
  let state = 12345
  const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296
  const makeId = createIds(random)
  const audio = new Map<AudioHash, Audio>()
  const sound = (frames: number, sampleRateHz: number, channels: number): AudioHash => {
    const hash = (audio.size + 256).toString(16).padStart(64, 'a') as AudioHash
    const make = () =>
      Float32Array.from({ length: frames }, (_, i) => Math.round((random() * 2 - 1) * 9000 * Math.max(0, 1 - i / frames)) / 32768)
    audio.set(hash, { sampleRateHz, channels: Array.from({ length: channels }, make) })
    return hash
  }
  const point = (at: number, value: number, bend = 0) => ({ seconds: at, value, bend })
  const filter = (filter1Kind: 'lowPass' | 'highPass', filter1CutoffHz: number, resonance: number, filter1EnvelopeCents = 0) => ({
    choices: { filter1Kind },
    values: { filter1CutoffHz, filter1Damping: 2 - 1.95 * resonance, filter1EnvelopeCents },
  })
  const opening = filter('lowPass', 700, 0.6, 4200)
  const thin = filter('highPass', 2500, 0.2)
  const shapes: OwnSettings[] = [
    {},
    { envelopes: { pitch: { points: [point(0, 3600), point(0.04, 0, -0.7), point(0.2, -500, 0.3)] } } },
    {
      mode: 'hold',
      envelopes: { level: { points: [point(0, 0), point(0.003, 1, 0.4), point(0.05, 0.5), point(0.12, 0, -0.5)], sustain: 2 } },
    },
    { ...opening, envelopes: { filter1: { points: [point(0, 1), point(0.08, 0, -0.4)] } } },
    {
      values: { tuneCents: -711 },
      responses: [responseTo('chance', 'tuneCents', 120), responseTo('velocity', 'gainDb', 24, { bend: 0.3 })],
    },
    { ...thin, values: { ...thin.values, startSeconds: 0.004 } },
  ]
  const picks = ['cycle', 'random', 'shuffle'] as const
  const pads = shapes.map((own, index) => {
    const pad = createPad(
      makeId,
      { pick: picks[index % 3], maxStrikes: 4, ...own, values: { pan: index / 5 - 0.5, gainDb: -8, ...own.values } },
      36 + index,
    )
    const bands = [1, 50, 100].map((from, band) =>
      createBand(
        makeId,
        from,
        Array.from({ length: 3 + band }, () => {
          const channels = index % 2 === 0 ? 1 : 2
          const frames = 3000 + Math.floor(random() * 9000)
          return createTurn(makeId, {
            [pad.rays[0].id]: wholeClip(sound(frames, index % 3 === 0 ? 44100 : rate, channels), { frames, channels }),
          })
        }),
      ),
    )
    return { ...pad, bands: bands.map((band) => ({ ...band, blendVelocities: band.fromVelocity === 50 ? 20 : 0 })) }
  })
  const kit: Kit = {
    ...createKit(makeId, 'Busy'),
    pads,
    maxStrikes: 12,
    ties: [{ kind: 'chokeGroup', id: makeId('tie'), name: 'pair', pads: [pads[0].id, pads[5].id], fadeSeconds: 0.006 }],
  }
  const events: { padId: PadId; frame: number; type: number; velocity?: number; key?: number }[] = []
  for (let frame = 11; frame < (seconds - 1) * rate; frame += 30 + Math.floor(random() * 6000)) {
    const padId = pads[Math.floor(random() * pads.length)].id
    const key = events.length + 1
    events.push({ padId, frame, type: EventType.strike, velocity: 1 + Math.floor(random() * 127), key })
    events.push({ padId, frame: frame + Math.floor(random() * 9000), type: EventType.release, key })
  }
  return { kit, audio, events }
}
