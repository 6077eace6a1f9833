/** @jest-environment node */
import 'fake-indexeddb/auto'

import { hashAudio, readWav, writeWav } from '@heliaster/core/audio'
import { findHits } from '@heliaster/core/cut'
import type { AudioHash, Clip } from '@heliaster/core/kit'

import { localDb } from '../../sync/local-db'
import { work } from './core-work'
import { onTray } from './trays'

jest.mock('comlink', () => ({ transfer: (value: unknown) => value }))

const RATE = 48000
/** Three strikes, one each half second, the last one the softest. */
const strikes = (channels = 1) => ({
  sampleRateHz: RATE,
  channels: Array.from({ length: channels }, (_, side) =>
    Float32Array.from({ length: 1.6 * RATE }, (_, i) => {
      const strike = Math.min(2, Math.floor(i / (0.5 * RATE)))
      const t = (i - (strike * 0.5 + 0.05) * RATE) / RATE
      return t < 0 ? 0 : (side === 0 ? 1 : 0.5) * [0.8, 0.6, 0.3][strike] * Math.sin(2 * Math.PI * 220 * t) * Math.exp(-t / 0.04)
    }),
  ),
})
const fast = { attack: 'fast' } as const
const clip = (more: object = {}) =>
  ({ audio: 'a', startFrame: 0, endFrame: 4800, fadeInSeconds: 0, fadeOutSeconds: 0, gainDb: 0, reverse: false, invert: false, channel: 'both', ...more }) as never // prettier-ignore

test('a file is decoded to the samples that are in it, and written again to the same', async () => {
  const audio = strikes(2)
  const bytes = writeWav(audio, { bits: 32 })
  const result = await work.decode(new Blob([bytes]))
  if (!result.ok) throw new Error(result.message)
  expect(result.decoded.audio.channels.map((channel) => channel.length)).toEqual([76800, 76800])
  expect(result.decoded.audio.channels[1].subarray(2500, 2600)).toEqual(audio.channels[1].subarray(2500, 2600))
  const again = readWav(new Uint8Array(work.encode(result.decoded.audio, 32)))
  expect(again.ok && again.file.audio.channels[0].subarray(2500, 2600)).toEqual(audio.channels[0].subarray(2500, 2600))
  expect(await work.hash(bytes.buffer)).toBe(hashAudio(bytes))
})

test('what is no audio says so', async () => {
  expect(await work.decode(new Blob(['words']))).toEqual({ ok: false, message: expect.stringMatching(/[.]$/) })
})

test('a recording is looked at, listened to and described, and the strikes that are in it are found', () => {
  const { mono } = work.look('walk', strikes())
  expect(mono).toHaveLength(76800)
  const heard = work.listen('walk', fast)!
  expect(heard.curve.strength.length).toBeGreaterThan(0)
  expect(heard.strikes.strikes.length).toBeGreaterThanOrEqual(3)
  const begins = [...heard.places.values()]
  expect(findHits(mono, RATE, heard.strikes).every(({ frame }) => begins.includes(frame))).toBe(true)
  const onsets = [0.05, 0.55, 1.05].map((seconds) => Math.round(seconds * RATE))
  const hits = work.describe('walk', onsets, [undefined, undefined, undefined], 'attack' as never)!
  expect(hits).toHaveLength(3)
  expect(hits[0].peakDb).toBeGreaterThan(hits[2].peakDb)
  const joins = work.joins('walk', onsets.map((onsetFrame) => ({ onsetFrame, endFrame: onsetFrame + 9000 })))!
  expect(joins).toHaveLength(2) // three things become one in two joins
  expect(work.sounding('walk', { onsetFrame: onsets[0], endFrame: onsets[0] + 9000 })).toBeDefined()
  expect(work.spectrogram('walk', 0, 48000, 20, 30)).toHaveLength(600)
}) // prettier-ignore

test('what is played in time is listened for with its pulse: the rises are the same, and some are likelier strikes', () => {
  const [walk] = strikes().channels
  const steps = Float32Array.from(
    { length: 5 * RATE },
    (_, i) => walk[(i % Math.round(0.25 * RATE)) + 0.05 * RATE] * (i % 7 === 0 ? 0.9 : 1),
  )
  work.look('steps', { sampleRateHz: RATE, channels: [steps] })
  const [plain, timed] = [fast, { ...fast, inTime: true }].map((as) => work.listen('steps', as)!.strikes)
  const kept = ({ strikes: list }: typeof plain) => list.map(({ hop, strength }) => [hop, strength])
  expect(kept(timed)).toEqual(kept(plain))
  expect(timed.strikes.map(({ odds }) => odds)).not.toEqual(plain.strikes.map(({ odds }) => odds))
})

test('of recordings that were looked at the last three are kept; of the others nothing is known', () => {
  for (const key of ['a', 'b', 'c', 'd']) work.look(key, strikes())
  expect(work.listen('a', fast)).toBeUndefined()
  expect(work.describe('a', [0], [undefined], 'attack' as never)).toBeUndefined()
  expect([work.joins('a', []), work.sounding('a', { onsetFrame: 0, endFrame: 9 }), work.spectrogram('a', 0, 9, 1, 1)]).toEqual([undefined, undefined, undefined]) // prettier-ignore
  expect(work.listen('d', fast)).toBeDefined()
  expect(work.describe('c', [2400], [undefined], 'attack' as never)).toBeUndefined() // looked at, not listened to yet
})

test('clips are measured as they are set: level, channel, lag and likeness', () => {
  const audio = strikes(2)
  expect(work.clipPeak(audio, clip({ gainDb: -6 }))).toBeCloseTo(work.clipPeak(audio, clip()) * 10 ** (-6 / 20), 4)
  expect(work.clipPeak(audio, clip({ channel: 'right' }))).toBeCloseTo(work.clipPeak(audio, clip({ channel: 'left' })) / 2, 3)
  expect(work.clipLoudness(audio, clip({ gainDb: -6 }))).toBeCloseTo(work.clipLoudness(audio, clip()) - 6, 1)
  expect(work.clipAudio(audio, clip({ channel: 'left' })).channels).toHaveLength(1)
  expect(work.clipPitchHz(audio, clip({ startFrame: 2400, endFrame: 9600 }))).toBeCloseTo(220, -1)
  const lag = work.lag(audio, clip({ startFrame: 2000, endFrame: 8000 }), audio, clip({ startFrame: 2100, endFrame: 8100 }))
  expect(Math.abs(lag!.seconds * RATE)).toBeCloseTo(100, -1)
  // Where they lie is told by what is recorded, not by what is set for them.
  const faded = { gainDb: -60, fadeInSeconds: 0.1 }
  expect(work.lag(audio, clip({ startFrame: 2000, endFrame: 8000, ...faded }), audio, clip({ startFrame: 2100, endFrame: 8100 }))).toEqual(
    lag,
  )
  expect(work.strikeLikeness(audio, clip(faded), audio, clip())).toBe(work.strikeLikeness(audio, clip(), audio, clip()))
  expect(work.strikeLikeness(audio, clip(), audio, clip())).toBeGreaterThan(0.5)
  expect(work.measure(audio).peakDb).toBeLessThan(0)
})

test('a clip in small, and a file, are the same by their samples and by their file; a file that cannot be read says what is wrong', async () => {
  const audio = strikes(2)
  const file = new Blob([writeWav(audio, { bits: 32 })])
  const look = await work.clipLook(audio, clip())
  expect([look.low.length, look.high.length]).toEqual([40, 40])
  expect(look.clipSeconds).toBeGreaterThan(0.05)
  expect(look.decaySeconds).toBeLessThan(look.clipSeconds)
  expect(look.centreHz / 220).toBeCloseTo(1, 0)
  const empty = { ...(clip() as Clip), endFrame: (clip() as Clip).startFrame }
  expect((await work.clipLook(audio, empty)).decaySeconds).toBe(0)
  expect(await work.clipLook(file, clip())).toEqual(look)
  expect((await work.picture(audio)).low).toHaveLength(64)
  expect(await work.picture(file)).toEqual(await work.picture(audio))
  await expect(work.picture(new Blob(['words']))).rejects.toThrow(/[.]$/)
})

test('a kept file is decoded onto a tray, its channels one behind the other, where they fit, and comes by itself where they do not', async () => {
  const audio = strikes(2)
  const frames = audio.channels[0].length
  const file = new Blob([writeWav(audio, { bits: 32 })])
  const keep = async (hash: string, bytes: Blob) => (await localDb()).put('audio', { hash, name: 'f.wav', bytes, uploaded: 0 } as never)
  await keep('two', file)
  await keep('words', new Blob(['words']))
  const tray = new SharedArrayBuffer(8 * frames + 12)
  expect(await work.decodeOnto(tray, 'two' as AudioHash)).toEqual({ ok: true, sampleRateHz: RATE, channels: 2, frames })
  const bitsOf = (channels: readonly Float32Array[]) => Buffer.concat(channels.map((one) => Buffer.from(one.slice().buffer))) // quicker to compare
  expect(bitsOf(onTray(tray, 2, frames)).equals(bitsOf(audio.channels))).toBe(true)
  const itself = await work.decodeOnto(new SharedArrayBuffer(8 * frames - 4), 'two' as AudioHash)
  expect(itself?.ok && 'decoded' in itself && bitsOf(itself.decoded.audio.channels).equals(bitsOf(audio.channels))).toBe(true)
  expect(await work.decodeOnto(tray, 'words' as AudioHash)).toEqual({ ok: false, message: expect.stringMatching(/[.]$/) })
  for (const result of [work.decodeOnto(tray, 'gone' as AudioHash), work.decodeHere('gone' as AudioHash), work.file('gone' as AudioHash)])
    expect(await result).toBeUndefined()
})

test('files of any length that are decoded one after another and at once are each their own', async () => {
  const of = (frames: number, level: number) => ({ sampleRateHz: RATE, channels: [new Float32Array(frames).fill(level)] })
  const lengths = [4000, 100, 9000, 700_000, 3, 5000]
  const results = await Promise.all(
    [...lengths, ...lengths].map((frames, i) => work.decode(new Blob([writeWav(of(frames, (i + 1) / 16), { bits: 32 })]))),
  )
  const heard = results.map(
    (result) => result.ok && [result.decoded.audio.channels[0].length, ...new Set(result.decoded.audio.channels[0])],
  )
  expect(heard).toEqual([...lengths, ...lengths].map((frames, i) => [frames, (i + 1) / 16]))
})
