import { seeded } from '../kit/builders'
import type { Family } from '../kit/families'
import { balanceOf, erbHz, excitationOf, filterHz, heardFromDb, hidesAmong, passes, wantedLoudness } from './index'

const RATE = 48000
const tone = (hz: number, level: number, seconds = 0.5, from = 0) =>
  Float32Array.from({ length: RATE }, (_, i) =>
    i < from * RATE || i > (from + seconds) * RATE ? 0 : level * Math.sin((2 * Math.PI * hz * i) / RATE),
  )
const db = (level: number) => 10 ** (level / 20)
/** Excitation at a frequency in Hz by a tone of so many dB SPL. */
const at = (probeHz: number, hz: number, levelDb: number) => {
  const pattern = excitationOf([hz], [levelDb])
  return pattern[filterHz.reduce((best, one, i) => (Math.abs(one - probeHz) < Math.abs(filterHz[best] - probeHz) ? i : best), 0)]
}

test('filters are as wide as measured: 24.7 Hz and 0.108 of the frequency, and let as much noise through as a band of that width', () => {
  expect(erbHz(1000)).toBeCloseTo(132.6, 1)
  for (const hz of [100, 1000, 5000]) {
    let area = 0
    for (let f = hz / 4; f < 3 * hz; f += hz / 2000) area += (passes(f, hz, 51) * hz) / 2000
    expect(area / erbHz(hz)).toBeCloseTo(1, 1)
  }
})

test('two tones: one at the same place is unheard from 3 dB below; above a loud tone more is hidden than below, and the louder the more so', () => {
  for (const level of [50, 70, 90]) {
    const threshold = (hz: number) => at(hz, 1000, level) + heardFromDb(hz)
    expect(threshold(1000)).toBeCloseTo(level - 3, 0)
    expect(threshold(2000) - threshold(500)).toBeGreaterThan(level > 51 ? 5 : -25)
  }
  const spread = (level: number) => level - at(2000, 1000, level)
  expect(spread(50)).toBeGreaterThan(spread(70) + 10)
  expect(spread(70)).toBeGreaterThan(spread(90) + 5)
  // Below its frequency a tone's pattern keeps its slope whatever its level.
  expect(70 - at(700, 1000, 70)).toBeCloseTo(90 - at(700, 1000, 90), 3)
})

test('a boom hides a softer tone beside it, not one far away, not one at another time, and is hidden by none', () => {
  const boom = tone(80, 0.8)
  const found = hidesAmong([boom, tone(95, 0.05), tone(3000, 0.05), tone(95, 0.05, 0.3, 0.65)])
  expect(found.map(({ by, whom }) => [by, whom])).toEqual([[0, 1]])
  const [one] = found
  expect(one.fromHz).toBeLessThan(95)
  expect(one.toHz).toBeGreaterThan(95)
  expect(one.toHz).toBeLessThan(400)
  expect(one.byDb).toBeGreaterThan(8)
  expect(one.share).toBeGreaterThan(0.5)
})

test('raising what is hidden, or taking that range from what hides it, undoes it', () => {
  const random = seeded(3)
  const noise = Float32Array.from({ length: RATE }, () => 0.2 * (random() - 0.5))
  const bell = tone(2500, db(-36))
  expect(hidesAmong([noise, bell]).map(({ whom }) => whom)).toEqual([1])
  expect(hidesAmong([noise, bell.map((one) => one * db(24))]).filter(({ whom }) => whom === 1)).toEqual([])
  expect(hidesAmong([noise.map((one) => one * db(-24)), bell]).filter(({ whom }) => whom === 1)).toEqual([])
})

test('levels are proposed by family against each other: what suits stays, the whole stays where it is, silence is left out', () => {
  const heard = (family: Family, level: number) => ({ family, channels: [tone(1000, level, 0.9)] })
  const suits = (['kick', 'snare', 'hat', 'shaker'] as const).map((family) => heard(family, db(-20 + wantedLoudness(family))))
  expect(balanceOf(suits, RATE)).toEqual([])
  const loudHat = suits.map((one, i) => (i === 2 ? heard('closedHat', db(-20 + wantedLoudness('hat') + 9)) : one))
  const changes = balanceOf(loudHat, RATE)
  expect(changes.map(({ sound, byDb }) => [sound, byDb])).toEqual([[2, -9]])
  expect(changes[0].isLufs - changes[0].wantsLufs).toBeCloseTo(9, 1)
  expect(balanceOf([...loudHat, { family: 'kick', channels: [new Float32Array(RATE)] }], RATE)).toHaveLength(1)
  expect(balanceOf([heard('kick', 0.5)], RATE)).toEqual([])
})

test('taken together, the changes suit: nothing is proposed any more, for any levels', () => {
  const random = seeded(8)
  const families = ['kick', 'snare', 'clap', 'hat', 'openHat', 'tom', 'ride', 'bell', 'other'] as const
  for (let round = 0; round < 5; round++) {
    const sounds = families.map((family) => ({ family, channels: [tone(400 + 3000 * random(), db(-30 + 14 * random()), 0.6)] }))
    const changes = balanceOf(sounds, RATE)
    const changed = sounds.map((sound, i) => {
      const by = db(changes.find((change) => change.sound === i)?.byDb ?? 0)
      return { ...sound, channels: sound.channels.map((channel) => channel.map((one) => one * by)) }
    })
    expect(balanceOf(changed, RATE)).toEqual([])
  }
})
