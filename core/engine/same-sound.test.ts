import type { Audio } from '../audio/audio'
import { aKit, seeded } from '../kit/builders'
import type { Clip, OwnSettings } from '../kit/kit'
import { createOffline, renderOffline, toScore } from './offline'
import { EventType } from './program/codes'

const RATE = 48000
const FRAMES = 5000
const LENGTH = 2400

interface Said {
  readonly audio: Audio
  readonly clip: Partial<Clip>
}

interface Heard {
  readonly own: OwnSettings
  readonly letGo?: number
  readonly block?: number
  readonly isPlain?: boolean
}

function heard({ audio, clip }: Said, { own, letGo, block = 128, isPlain = false }: Heard): Float32Array[] {
  const rig = aKit([{ own, bands: [[audio]] }])
  const [pad] = rig.kit.pads
  const [band] = pad.bands
  const [turn] = band.turns
  const clips = Object.fromEntries(Object.entries(turn.clips).map(([ray, one]) => [ray, { ...(one as Clip), ...clip }]))
  const kit = { ...rig.kit, pads: [{ ...pad, bands: [{ ...band, turns: [{ ...turn, clips }] }] }] }
  const { engine, loader } = createOffline(kit, RATE, (hash) => rig.audio.get(hash), kit.seed, undefined, isPlain)
  const padSlot = loader.slotOf(pad.id)
  const events = [
    { frame: 30, type: EventType.strike, padSlot, velocity: 100, key: 1 },
    ...(letGo === undefined ? [] : [{ frame: letGo, type: EventType.release, padSlot, key: 1 }]),
  ]
  return renderOffline(engine, toScore(events), FRAMES, block)
}

/** A hit with a loop and slices as a seed draws them, and how it is played, up to three octaves up. */
function anyHit(seed: number) {
  const random = seeded(seed * 6007)
  const within = (least: number, most: number) => least + (most - least) * random()
  const place = () => Math.floor(within(0, LENGTH - 60))
  const channels = [0, 1].map(() => Float32Array.from({ length: LENGTH }, () => 0.4 * (random() - 0.5)))
  const hasLoop = random() < 0.5
  const startFrame = place()
  const loop: Clip['loop'] = {
    startFrame,
    endFrame: startFrame + 40 + Math.floor(within(0, LENGTH - startFrame - 41)),
    kind: random() < 0.5 ? 'forward' : 'backAndForth',
    until: random() < 0.5 ? 'letGo' : 'end',
    crossfadeSeconds: random() < 0.5 ? 0 : within(0, 0.01),
  }
  const slices: Clip['slices'] = Array.from({ length: Math.floor(within(0, 4)) }, (_, i) => ({
    id: `slice${i}`,
    frame: i === 0 ? 0 : place(),
    values: { gainDb: within(-12, 3), pan: within(-0.5, 0.5), tuneCents: random() < 0.5 ? 0 : within(-600, 600) },
  }))
  const values: OwnSettings['values'] = { gainDb: -12, tuneCents: random() < 0.3 ? 0 : within(-900, 3600) }
  const maybe = (name: keyof typeof values, most: number) => random() < 0.3 && Object.assign(values, { [name]: within(0, most) })
  maybe('startSeconds', 0.02)
  maybe('endSeconds', 0.02)
  maybe('fadeInSeconds', 0.01)
  maybe('fadeOutSeconds', 0.02)
  maybe('driveDb', 12)
  const point = (seconds: number, value: number) => ({ seconds, value, bend: 0 })
  const envelopes = {
    ...(random() < 0.5 ? { pitch: { points: [point(0, within(-600, 600)), point(0.03, 0)] } } : {}),
    ...(random() < 0.5 ? { level: { points: [point(0, 1), point(0.02, within(0.3, 1)), point(0.08, 0)] } } : {}),
  }
  const own: OwnSettings = {
    values,
    envelopes,
    mode: random() < 0.6 ? 'hold' : 'oneShot',
    choices: { filter1Kind: random() < 0.3 ? 'lowPass' : 'off' },
  }
  const clip: Partial<Clip> = { ...(hasLoop ? { loop } : {}), ...(slices.length > 0 ? { slices } : {}) }
  return { random, audio: { sampleRateHz: RATE, channels }, clip, how: { own, letGo: Math.floor(within(200, 4000)) } }
}

const HITS = 30

test('a region of a file sounds as a file of its own', () => {
  for (let seed = 1; seed <= HITS; seed++) {
    const { random, audio, clip, how } = anyHit(seed)
    const before = Math.floor(3000 * random())
    const noise = (length: number) => Float32Array.from({ length }, () => random() - 0.5)
    const channels = audio.channels.map((one) => Float32Array.from([...noise(before), ...one, ...noise(700)]))
    const { loop, slices } = clip
    const moved: Partial<Clip> = {
      startFrame: before,
      endFrame: before + LENGTH,
      ...(loop ? { loop: { ...loop, startFrame: loop.startFrame + before, endFrame: loop.endFrame + before } } : {}),
      ...(slices ? { slices: slices.map((slice) => ({ ...slice, frame: slice.frame + before })) } : {}),
    }
    expect([seed, heard({ audio: { ...audio, channels }, clip: moved }, how)]).toEqual([seed, heard({ audio, clip }, how)])
  }
})

test('a hit that is turned round sounds as a file that was', () => {
  for (let seed = 101; seed <= 100 + HITS; seed++) {
    const { audio, clip, how } = anyHit(seed)
    const { loop, slices } = clip
    const channels = audio.channels.map((one) => one.slice().reverse())
    const sorted = slices?.toSorted((a, b) => a.frame - b.frame)
    const turned: Partial<Clip> = {
      ...(loop ? { loop: { ...loop, startFrame: LENGTH - loop.endFrame, endFrame: LENGTH - loop.startFrame } } : {}),
      ...(sorted ? { slices: sorted.map((slice, i) => ({ ...slice, frame: LENGTH - (sorted[i + 1]?.frame ?? LENGTH) })) } : {}),
    }
    expect([seed, heard({ audio, clip: { ...clip, reverse: true } }, how)]).toEqual([
      seed,
      heard({ audio: { ...audio, channels }, clip: turned }, how),
    ])
  }
})

test('one channel of two, and what is turned upside down, sound as a file of it', () => {
  for (let seed = 201; seed <= 200 + HITS; seed++) {
    const { audio, clip, how } = anyHit(seed)
    const right = { ...audio, channels: [audio.channels[1]] }
    expect([seed, heard({ audio, clip: { ...clip, channel: 'right' } }, how)]).toEqual([seed, heard({ audio: right, clip }, how)])
    const down = { ...audio, channels: audio.channels.map((one) => one.map((sample) => -sample)) }
    expect([seed, heard({ audio, clip: { ...clip, invert: true } }, how)]).toEqual([seed, heard({ audio: down, clip }, how)])
  }
})

test('blocks and the kernel’s plain form change nothing of it', () => {
  for (let seed = 301; seed <= 300 + HITS; seed++) {
    const { audio, clip, how } = anyHit(seed)
    const whole = heard({ audio, clip }, how)
    expect([seed, heard({ audio, clip }, { ...how, block: 37 })]).toEqual([seed, whole])
    expect([seed, heard({ audio, clip }, { ...how, isPlain: true, block: 1000 })]).toEqual([seed, whole])
    expect(whole[0].some((sample) => sample !== 0)).toBe(true)
  }
})

/** Where in a clip each frame of what goes round comes from. */
function placeOf(frame: number, { startFrame, endFrame, kind }: NonNullable<Clip['loop']>): number {
  const length = endFrame - startFrame
  if (frame < startFrame) return frame
  const into = (frame - startFrame) % (kind === 'forward' ? length : 2 * length)
  return into < length ? startFrame + into : endFrame - 1 - (into - length)
}

test('a loop sounds as a file in which it is written out, at any pitch', () => {
  let loops = 0
  for (let seed = 401; seed <= 400 + 2 * HITS; seed++) {
    const { audio, clip, how } = anyHit(seed)
    if (!clip.loop) continue
    const loop = { ...clip.loop, until: 'letGo' as const, crossfadeSeconds: 0 }
    const own: OwnSettings = { ...how.own, mode: 'hold', values: { ...how.own.values, endSeconds: 0, fadeOutSeconds: 0 } }
    const channels = audio.channels.map((one) => Float32Array.from({ length: 60_000 }, (_, i) => one[placeOf(i, loop)]))
    const ours = heard({ audio, clip: { loop } }, { own })
    const theirs = heard({ audio: { ...audio, channels }, clip: {} }, { own })
    const power = (of: readonly Float32Array[]) => of.reduce((sum, side) => side.reduce((all, sample) => all + sample ** 2, sum), 0)
    const rest = ours.map((side, s) => side.map((sample, i) => sample - theirs[s][i]))
    const apartDb = 10 * Math.log10(power(rest) / power(theirs))
    // Levels of half the rate begin an octave up; where they begin in a period differs.
    expect([seed, apartDb < (own.values!.tuneCents! < 500 ? -110 : -50)]).toEqual([seed, true])
    loops++
  }
  expect(loops).toBeGreaterThan(HITS / 2)
})
