import { aKit, seeded } from '../kit/builders'
import { keptDriveLevelDb } from './kept-level'
import { createOffline, renderOffline, toScore } from './offline'
import { EventType } from './program/codes'

const rms = (samples: Float32Array) => Math.sqrt(samples.reduce((sum, sample) => sum + sample * sample, 0) / samples.length)

test('a driven sound at its kept level is as loud as it was, in all characters', () => {
  const random = seeded(12)
  const clip = Float32Array.from(
    { length: 9600 },
    (_, i) => 0.6 * Math.exp(-i / 2500) * Math.sin(i * 0.03 * (1 + 0.2 * Math.exp(-i / 300))),
  )
  const played = (values: object, driveKind: 'soft' | 'hard' | 'folded' | 'uneven') => {
    const rig = aKit([{ own: { values, choices: { driveKind } }, bands: [[{ sampleRateHz: 48000, channels: [clip] }]] }])
    const { engine, loader } = createOffline(rig.kit, 48000, (hash) => rig.audio.get(hash))
    const strike = { frame: 0, type: EventType.strike, padSlot: loader.slotOf(rig.kit.pads[0].id), velocity: 127 }
    return renderOffline(engine, toScore([strike]), 9600)[0]
  }
  for (const kind of ['soft', 'hard', 'folded', 'uneven'] as const)
    for (let i = 0; i < 5; i++) {
      const [driveDb, driveAfterDb] = [30 * random(), i % 2 === 0 ? 0 : 20 * random()]
      const driveLevelDb = keptDriveLevelDb(clip, kind, driveDb, driveAfterDb)
      const change = 20 * Math.log10(rms(played({ driveDb, driveAfterDb, driveLevelDb }, kind)) / rms(played({}, kind)))
      expect(Math.abs(change)).toBeLessThan(0.5)
    }
  expect(keptDriveLevelDb(new Float32Array(10), 'hard', 20, 0)).toBe(0)
})
