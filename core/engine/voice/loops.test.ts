import { aKit, seeded } from '../../kit/builders'
import type { Clip, Kit, OwnSettings } from '../../kit/kit'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'

const RATE = 48000
type Loop = NonNullable<Clip['loop']>

interface Played {
  readonly own?: OwnSettings
  readonly loop: Loop
  readonly reverse?: boolean
  readonly letGo?: number
  readonly frames: number
  readonly block?: number
  readonly isPlain?: boolean
}

/** A clip with a loop, struck at frame 0. */
function played(
  channels: Float32Array[],
  { own = {}, loop, reverse = false, letGo, frames, block = 128, isPlain = false }: Played,
): Float32Array[] {
  const rig = aKit([{ own, bands: [[{ sampleRateHz: RATE, channels }]] }])
  const [pad] = rig.kit.pads
  const withLoop = (clip: Clip | 'intendedSilence') => (clip === 'intendedSilence' ? clip : { ...clip, loop, reverse })
  const bands = pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, withLoop(clip)])) })) })) // prettier-ignore
  const kit: Kit = { ...rig.kit, pads: [{ ...pad, bands }] }
  const { engine, loader } = createOffline(kit, RATE, (hash) => rig.audio.get(hash), kit.seed, undefined, isPlain)
  const padSlot = loader.slotOf(pad.id)
  const events = [
    { frame: 0, type: EventType.strike, padSlot, velocity: 127, key: 1 },
    ...(letGo === undefined ? [] : [{ frame: letGo, type: EventType.release, padSlot, key: 1 }]),
  ]
  return renderOffline(engine, toScore(events), frames, block)
}

const loopOf = (startFrame: number, endFrame: number, more: Partial<Loop> = {}): Loop => ({ startFrame, endFrame, kind: 'forward', until: 'end', crossfadeSeconds: 0, ...more }) // prettier-ignore
const sine = (hz: number, frames: number) => Float32Array.from({ length: frames }, (_, i) => 0.5 * Math.sin((2 * Math.PI * hz * i) / RATE))

function noise(frames: number, seed: number): Float32Array {
  const random = seeded(seed)
  return Float32Array.from({ length: frames }, () => random() - 0.5)
}

/** Where in the clip each frame of a loop comes from, until it is let go. */
function placeOf(frame: number, { startFrame, endFrame, kind }: Loop): number {
  const length = endFrame - startFrame
  if (frame < startFrame) return frame
  const m = (frame - startFrame) % (kind === 'forward' ? length : 2 * length)
  return m < length ? startFrame + m : endFrame - 1 - (m - length)
}

test('at its own rate a loop is the samples themselves, forward or there and back, reversed too', () => {
  const clip = noise(3000, 91)
  for (const kind of ['forward', 'backAndForth'] as const)
    for (const [start, end] of [
      [700, 1900],
      [40, 47],
      [0, 3000],
      [2998, 3000],
    ])
      // prettier-ignore
      for (const reverse of [false, true]) {
        const loop = loopOf(start, end, { kind })
        const [left] = played([clip], { loop, reverse, frames: 9000 })
        const heard = reverse ? clip.slice().reverse() : clip
        const inHeard = reverse ? { ...loop, startFrame: 3000 - end, endFrame: 3000 - start } : loop
        expect(left).toEqual(Float32Array.from(left, (_, i) => heard[placeOf(i, inHeard)]))
      }
})

test('a loop that ends when it is let go goes on as it was recorded, without a step, whenever that is, at any pitch', () => {
  const random = seeded(92)
  const clip = sine(310, 20000).map((sample, i) => sample * Math.min(1, (20000 - i) / 400)) // at its end there is no step either
  for (let i = 0; i < 30; i++) {
    const start = 1000 + Math.floor(4000 * random())
    const loop = loopOf(start, start + 1500 + Math.floor(6000 * random()), {
      until: 'letGo',
      crossfadeSeconds: 0.01,
      kind: i % 3 ? 'forward' : 'backAndForth',
    })
    const letGo = Math.floor(30000 * random())
    const tuneCents = i % 2 ? 0 : 4000 * random()
    const [left] = played([clip], { own: { mode: 'hold', values: { tuneCents } }, loop, letGo, frames: 70000 })
    const steepest = left
      .slice(0, 60000)
      .reduce((most, sample, at) => Math.max(most, at > 0 && left[at] !== 0 ? Math.abs(sample - left[at - 1]) : 0), 0)
    expect(steepest / 2 ** (tuneCents / 1200)).toBeLessThan(0.5 * ((2 * Math.PI * 310) / RATE) * 1.6)
    const last = left.findLastIndex((sample) => sample !== 0)
    expect(last).toBeLessThan(letGo + 20000 + (loop.endFrame - loop.startFrame) * 2)
    // What it ends with is the end of the recording.
    if (tuneCents === 0) for (let back = 1; back < 3000; back += 500) expect(left[last - back]).toBeCloseTo(clip[19999 - back], 6)
  }
})

test('the seam of a faded loop that fits no period is not heard: 200 Hz, 5 ms, nothing above 4 kHz over -70 dB', () => {
  for (const tuneCents of [0, 386]) {
    const loop = loopOf(4000, 4000 + 2517, { crossfadeSeconds: 0.005 })
    const [left] = played([sine(200, 9000)], { own: { values: { tuneCents } }, loop, frames: 30000 })
    const rate = 2 ** (tuneCents / 1200)
    for (let round = 1; round < 6; round++) {
      const seam = Math.round((4000 + 2517 * round) / rate)
      const part = left.slice(seam - 96, seam + 96).map((sample, i) => sample * (0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / 192)))
      let [high, all] = [0, 0]
      for (let bin = 0; bin <= 96; bin++) {
        let [re, im] = [0, 0]
        part.forEach((sample, i) => {
          re += sample * Math.cos((2 * Math.PI * bin * i) / 192)
          im += sample * Math.sin((2 * Math.PI * bin * i) / 192)
        })
        all += re * re + im * im
        if (bin * (RATE / 192) > 4000) high += re * re + im * im
      }
      expect(10 * Math.log10(high / all)).toBeLessThan(-70)
    }
  }
})

test('a loop of whole periods stays a sine through its seams at any pitch, also where levels of lower rates are read', () => {
  for (const tuneCents of [-500, 700, 1900]) {
    const [left] = played([sine(480, 8000)], { own: { values: { tuneCents } }, loop: loopOf(1000, 1000 + 1200), frames: 24000 })
    const w = (2 * Math.PI * 480 * 2 ** (tuneCents / 1200)) / RATE
    let rest = 0
    for (let i = 2000; i < 23000; i++) rest = Math.max(rest, Math.abs(left[i + 1] - 2 * Math.cos(w) * left[i] + left[i - 1]))
    // A sine is what two of its samples make of the next one.
    expect(20 * Math.log10(rest)).toBeLessThan(-85)
  }
})

test('loudness stays through the fade of noise and of what is alike', () => {
  const loop = loopOf(6000, 12000, { crossfadeSeconds: 0.06 })
  const [left] = played([noise(20000, 93)], { loop, frames: 40000 })
  const power = (from: number) => left.slice(from, from + 1400).reduce((sum, sample) => sum + sample ** 2, 0)
  expect(10 * Math.log10(power(12000 - 2140) / power(8000))).toBeGreaterThan(-0.6)
})

test('let go, what waited falls on with the loop: a pitch that was held, and a level that may not end the strike', () => {
  const clip = sine(300, 30000)
  const pitch = { points: [{ seconds: 0, value: 0, bend: 0 }, { seconds: 0.02, value: 700, bend: 0 }, { seconds: 0.1, value: -1200, bend: 0 }], sustain: 1 } // prettier-ignore
  const loop = loopOf(4000, 4000 + 1600, { until: 'letGo' })
  const [left] = played([clip], { own: { mode: 'hold', envelopes: { pitch } }, loop, letGo: 20000, frames: 40000 })
  const hzAt = (from: number) => {
    let crossings = 0
    for (let i = from; i < from + 4800; i++) if (left[i - 1] < 0 && left[i] >= 0) crossings++
    return crossings * 10
  }
  expect(Math.abs(hzAt(12000) - 300 * 2 ** (700 / 1200))).toBeLessThan(15)
  expect(Math.abs(hzAt(28000) - 150)).toBeLessThan(15)
})

test('blocks and forms change nothing, whenever a loop is left', () => {
  const clip = [noise(6000, 94), noise(6000, 95)]
  for (const letGo of [3, 1111, 4242]) {
    const loop = loopOf(900, 2100, { until: 'letGo', crossfadeSeconds: 0.004 })
    const given: Played = { own: { mode: 'hold', values: { tuneCents: -230 } }, loop, letGo, frames: 12000 }
    const sound = played(clip, given)
    expect(played(clip, { ...given, block: 37 })).toEqual(sound)
    expect(played(clip, { ...given, isPlain: true })).toEqual(sound)
  }
})

/** What is heard of a loop that is let go, frame by frame: the loop until it lies as it was recorded, then the clip up to its end, faded out to it. */
function plainLeaving(clip: Float32Array, loop: Loop, { letGo, trim, fade, frames }: Record<'letGo' | 'trim' | 'fade' | 'frames', number>) {
  const heard = new Float32Array(frames)
  const end = Math.max(loop.endFrame, clip.length - trim)
  const isPlain = (frame: number) => frame < loop.endFrame || loop.kind === 'forward' || placeOf(frame, loop) < placeOf(frame + 1, loop)
  let frame = 0
  for (; frame < letGo || !isPlain(frame); frame++) heard[frame] = clip[placeOf(frame, loop)]
  const from = placeOf(frame, loop)
  const out = Math.min(fade, end - from)
  for (let at = from; at < end && frame < frames; at++, frame++) heard[frame] = clip[at] * Math.min(1, (end - at) / out)
  return heard
}

test('what has left its loop ends where its end is trimmed to, behind the loop at the soonest, and fades out to it without a step', () => {
  const random = seeded(96)
  const frames = 9000
  for (let i = 0; i < 40; i++) {
    const clip = noise(4000, 500 + i)
    const startFrame = Math.floor(1500 * random())
    const loop = loopOf(startFrame, startFrame + 50 + Math.floor(1200 * random()), { until: 'letGo', kind: i % 2 ? 'forward' : 'backAndForth' }) // prettier-ignore
    const [letGo, trim, fade] = [6000, 3000, i % 3 ? 2500 : 0].map((most) => Math.floor(most * random()))
    const own = { mode: 'hold' as const, values: { endSeconds: trim / RATE, fadeOutSeconds: fade / RATE } }
    const given: Played = { own, loop, letGo, frames }
    const [left] = played([clip], given)
    const wanted = plainLeaving(clip, loop, { letGo, trim, fade, frames })
    const worst = left.reduce((most, sample, at) => Math.max(most, Math.abs(sample - wanted[at])), 0)
    expect({ i, letGo, trim, fade, worst: worst < 1e-6 }).toEqual({ i, letGo, trim, fade, worst: true })
    expect(played([clip], { ...given, block: 53 })[0]).toEqual(left)
    expect(played([clip], { ...given, isPlain: true })[0]).toEqual(left)
  }
})
