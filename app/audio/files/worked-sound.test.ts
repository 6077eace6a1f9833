/** @jest-environment node */
import type { Audio } from '@heliaster/core/audio'
import type { Clip, MatterStep } from '@heliaster/core/kit'
import type { MatterResult, Recipe } from '@heliaster/core/matter'

import { cutFor, NotWorked, stopWorking, workedSound, working } from './worked-sound'

interface Asked {
  readonly recipe: Recipe
  readonly audio: Audio
  answer(result: MatterResult): void
}
const mockAsked: Asked[] = []
const mockStop = jest.fn()
jest.mock('../workers/workers', () => ({
  matterWork: () => ({ recipe: (recipe: Recipe, audio: Audio) => new Promise((answer) => mockAsked.push({ recipe, audio, answer })) }),
  stopMatterWork: () => mockStop() as unknown,
}))

const step = (id: string, lengthPercent: number): MatterStep => ({ id, kind: 'time', values: { lengthPercent }, bypass: false })
const clip = (more: Partial<Clip> = {}): Clip => ({ audio: 'a' as never, startFrame: 20_000, endFrame: 30_000, fadeInSeconds: 0, fadeOutSeconds: 0, gainDb: 0, reverse: false, invert: false, channel: 'both', ...more }) // prettier-ignore
const recipe = (id: string, lengthPercent: number, more: Partial<Clip> = {}): Recipe => ({ clip: clip({ process: [step(id, lengthPercent)], ...more }), tempoBpm: 120, semitones: 0, octaves: 0, take: 0 }) // prettier-ignore
const source = async (): Promise<Audio> => ({ sampleRateHz: 48000, channels: [Float32Array.from({ length: 50_000 }, (_, i) => i)] })
const made = { sampleRateHz: 48000, channels: [new Float32Array(5)] }
const settled = () => new Promise((then) => setImmediate(then))
beforeEach(() => (mockAsked.length = 0))

test('one sound after another; only the stretch that is needed goes to the worker', async () => {
  const [one, other] = [workedSound(recipe('a', 150), source), workedSound(recipe('b', 150, { endFrame: 25_000 }), source)]
  await settled()
  expect(mockAsked).toHaveLength(1)
  expect(working.getState().waiting).toBe(2)
  const [asked] = mockAsked
  expect(asked!.audio.channels[0]).toHaveLength(4800 + 10_000)
  expect([asked!.recipe.clip.startFrame, asked!.recipe.clip.endFrame, asked!.audio.channels[0]![4800]]).toEqual([4800, 14_800, 20_000])
  asked!.answer({ ok: true, audio: made })
  expect(await one).toBe(made)
  await settled()
  mockAsked[1]!.answer({ ok: false, message: 'This is silent.' })
  await expect(other).rejects.toThrow('This is silent.')
  expect(working.getState()).toEqual({ waiting: 0, share: 0 })
})

test('settings that were left again before their turn are not worked', async () => {
  const first = workedSound(recipe('a', 110), source)
  const left = workedSound(recipe('a', 120), source)
  const missed = left.catch((error: Error) => error)
  const last = workedSound(recipe('a', 130), source)
  const beside = workedSound(recipe('of another clip', 120), source)
  expect(await missed).toBeInstanceOf(NotWorked)
  for (let i = 0; i < 3; i++) {
    await settled()
    mockAsked[i]!.answer({ ok: true, audio: made })
  }
  await Promise.all([first, last, beside])
  expect(mockAsked.map((asked) => asked.recipe.clip.process![0]!.values.lengthPercent)).toEqual([110, 130, 120])
})

test('stopped, all that waits is told so in words, and what comes next is worked', async () => {
  const all = [workedSound(recipe('a', 110), source), workedSound(recipe('b', 110), source)].map((one) => one.catch((error: Error) => error.message)) // prettier-ignore
  await settled()
  stopWorking()
  expect(mockStop).toHaveBeenCalledTimes(1)
  for (const message of await Promise.all(all)) expect(message).toContain('was stopped. Change a step')
  const next = workedSound(recipe('c', 110), source)
  await settled()
  mockAsked.at(-1)!.answer({ ok: true, audio: made })
  expect(await next).toBe(made)
})

test('parts and slices move with the stretch that is cut out', async () => {
  const given = recipe('a', 110, { slices: [{ id: 's', frame: 21_000, values: {} }] })
  const parted = { ...given, clip: { ...given.clip, process: [{ ...step('a', 110), part: { startFrame: 22_000, endFrame: 24_000 } }] } }
  const { recipe: cut } = cutFor(parted, await source())
  expect(cut.clip.slices![0]!.frame).toBe(5800)
  expect(cut.clip.process![0]!.part).toEqual({ startFrame: 6800, endFrame: 8800 })
})
