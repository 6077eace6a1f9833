import { aKit, seeded } from '../../kit/builders'
import type { BusId } from '../../kit/ids'
import type { OwnSettings } from '../../kit/kit'
import { createBus } from '../../kit/make'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'

const RATE = 48000
const FRAMES = 9000

/** Most pads are filtered alike, some not, some twice; some are nothing but played. */
function anyPad(random: () => number): OwnSettings {
  const is = (chance: number) => random() < chance
  const kinds = ['lowPass', 'highPass', 'bandPass', 'peak', 'lowShelf'] as const
  const kind = is(0.6) ? 'lowPass' : kinds[Math.floor(5 * random())]
  const envelope = (from: number, to: number) => ({
    points: [
      { seconds: 0, value: from, bend: is(0.5) ? random() - 0.5 : 0 },
      { seconds: 0.01 + 0.2 * random(), value: to, bend: 0 },
    ],
  })
  return {
    choices: {
      ...(is(0.7) ? { filter1Kind: kind } : {}),
      ...(is(0.3) ? { filter2Kind: 'highPass' } : {}),
      filter1Slope: is(0.3) ? '24' : '12',
    },
    values: {
      gainDb: -20 * random(),
      pan: 2 * random() - 1,
      filter1CutoffHz: 100 + 8000 * random(),
      filter1GainDb: 12 * random() - 6,
      filter2CutoffHz: 50 + 300 * random(),
      ...(is(0.5) ? { filter1EnvelopeCents: 4800 * random() - 2400 } : {}),
      ...(is(0.2) ? { lowCutHz: 40 + 200 * random() } : {}),
      ...(is(0.2) ? { fadeInSeconds: 0.02 * random() } : {}),
      ...(is(0.15) ? { driveDb: 12 * random() } : {}),
      ...(is(0.3) ? { tuneCents: 1200 * random() - 600 } : {}),
    },
    envelopes: { filter1: envelope(1, 0), ...(is(0.7) ? { level: envelope(1, random()) } : {}) },
    maxStrikes: 1 + Math.floor(4 * random()),
  } as OwnSettings
}

test('hits that are only played, and those that pass more, are to the bit what the plain form makes of each by itself', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const random = seeded(seed * 6007)
    const sound = () => {
      const frames = 1 + Math.floor(5000 * random())
      const channels = random() < 0.85 ? 1 : 2
      return {
        sampleRateHz: random() < 0.85 ? RATE : 44100,
        channels: Array.from({ length: channels }, () => Float32Array.from({ length: frames }, () => 2 * random() - 1)),
      }
    }
    const pads = Array.from({ length: 2 + Math.floor(6 * random()) }, () => ({ own: anyPad(random), bands: [[sound(), sound()]] }))
    const { kit: dry, audio } = aKit(pads)
    const room = createBus('room' as BusId, 'Room')
    const sent = () => (random() < 0.25 ? [{ busId: room.id, values: { gainDb: -6 }, tap: 'pre' as const }] : [])
    const kit = {
      ...dry,
      buses: [room],
      pads: dry.pads.map((pad) => ({ ...pad, rays: pad.rays.map((ray) => ({ ...ray, sends: sent() })) })),
    }
    const events = Array.from({ length: 40 }, () => ({
      frame: random() < 0.3 ? 128 * Math.floor((random() * FRAMES) / 128) : Math.floor(random() * FRAMES),
      type: random() < 0.9 ? EventType.strike : EventType.stopPad,
      padSlot: Math.floor(random() * kit.pads.length),
      velocity: 1 + Math.floor(127 * random()),
    }))
    const blockFrames = 1 + Math.floor(400 * random())
    const rendered = [false, true].map((isPlain) => {
      const { engine } = createOffline(kit, RATE, (hash) => audio.get(hash), kit.seed, undefined, isPlain)
      return { engine, sides: renderOffline(engine, toScore(events), FRAMES, isPlain ? 100 : blockFrames) }
    })
    const [kernel, plain] = rendered.map(({ sides }) => sides)
    kernel.forEach((side, s) => {
      const apart = side.findIndex((sample, i) => !Object.is(sample, plain[s][i]))
      if (apart >= 0) throw new Error(`seed ${seed}: side ${s} is another one from frame ${apart} on`)
    })
    expect(rendered[0].engine.memory.meters).toEqual(rendered[1].engine.memory.meters)
    expect(kernel[0].some((sample) => sample !== 0)).toBe(true)
  }
})
