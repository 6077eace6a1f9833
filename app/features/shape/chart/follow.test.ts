/** @jest-environment node */
import { noEnvelope } from '@heliaster/core/kit'
import type { Kit, Pad } from '@heliaster/core/kit'

import { aKitOf, aPad } from '../../../testing/a-kit'
import { targetOf } from '../whom/target'
import { levelOf, pitchOf } from './follow'

const mockDrawn: { pad: Pad; seconds: number; rate: number }[] = []
const mockLevel = jest.fn()
const mockPitch = jest.fn()
jest.mock('../../../audio/engine/draw', () => ({
  drawStrike: async (_kit: Kit, pad: Pad, _velocity: number, seconds: number, rate: number) => {
    mockDrawn.push({ pad, seconds, rate })
    return { left: Float32Array.of(0.2, 0.4), right: Float32Array.of(0.6, 0) }
  },
}))
jest.mock('../../../audio/workers/workers', () => ({
  coreWork: () => ({
    followLevel: (...given: unknown[]) => mockLevel(...given) as unknown,
    followPitch: (...given: unknown[]) => mockPitch(...given) as unknown,
  }),
}))
jest.mock('../../../kit-view/use-kit', () => ({ padName: (_kit: unknown, pad: { own: { name: string } }) => pad.own.name }))

const shaped = { ...noEnvelope, points: [] }
const pad: Pad = { ...aPad(1), own: { name: 'Oar', envelopes: { level: shaped, pitch: shaped } } } as never
const other: Pad = { ...aPad(1), own: { name: 'Bell' } }
const kit = { ...aKitOf(pad, other), tuningA4Hz: 440 }

beforeEach(() => {
  jest.clearAllMocks()
  mockDrawn.length = 0
})

test('the level follows the other as it is heard, over this one with its own level left alone', async () => {
  mockLevel.mockResolvedValue('an envelope')
  const found = await levelOf(kit, other, pad, targetOf(kit, pad, { kind: 'pad' }))
  expect(found).toEqual({ envelope: 'an envelope', words: 'The level follows Bell. Where it was softer than Bell, it stays as it is.' })
  const [wanted, own] = mockDrawn.map(({ pad: drawn }) => drawn.own.envelopes)
  expect(wanted).toBeUndefined()
  expect(own!.level).toEqual(noEnvelope)
  expect(own!.pitch).toBe(shaped)
  const [sound] = mockLevel.mock.lastCall as [{ mono: Float32Array; sampleRateHz: number }]
  expect([...sound.mono].map((sample) => Number(sample.toFixed(6)))).toEqual([0.4, 0.2])
  expect(mockDrawn.every(({ rate, seconds }) => rate === sound.sampleRateHz && seconds > 1)).toBe(true)
})

test('what is silent is not followed, and says which of the two may be', async () => {
  mockLevel.mockResolvedValue(undefined)
  const found = await levelOf(kit, other, pad, targetOf(kit, pad, { kind: 'pad' }))
  expect(found).toEqual({ words: 'There is nothing to follow: Bell or Oar is silent.' })
})

test.each([[420, 'falls by 4.2 semitones'], [-150, 'rises by 1.5 semitones'], [49, 'hardly moves'], [-49, 'hardly moves'], [50, 'falls by 0.5 semitones']] as const)(
  'a fall of %s cents is told as: %s',
  async (fallCents, words) => {
    mockPitch.mockResolvedValue({ envelope: 'an envelope', fallCents, settlesHz: 220.04 })
    const found = await pitchOf(kit, other)
    expect(found.envelope).toBe('an envelope')
    expect(found.words).toMatch(new RegExp(`^The pitch follows Bell: it ${words}, to 220\\.0 Hz \\(A\\d\\) there\\.$`))
  },
) // prettier-ignore

test('a noise has no pitch to follow', async () => {
  mockPitch.mockResolvedValue(undefined)
  const found = await pitchOf(kit, other)
  expect([found.envelope, found.words]).toEqual([undefined, expect.stringMatching(/^No single tone carries Bell/)])
})
