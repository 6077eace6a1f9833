import { readWav } from '../audio/wav-read'
import { aKit, anImpulse, aTone } from '../kit/builders'
import type { Rig } from '../kit/builders'
import { createBus } from '../kit/make'
import { responseTo } from '../kit/responses'
import { writeOneShots } from './one-shots'

const RATE = 48000
const written = ({ kit, audio }: Rig, fit?: 'together' | 'each') => {
  const { files, notes, isTooLoud } = writeOneShots(kit, (hash) => audio.get(hash), fit)
  const wavs = files.flatMap(({ path, bytes }) => {
    const read = path.endsWith('.wav') ? readWav(bytes) : undefined
    return read?.ok ? [{ path, channels: read.file.audio.channels }] : []
  })
  return { wavs, notes, isTooLoud, paths: files.map(({ path }) => path) }
}
const peak = (channels: readonly Float32Array[]) => Math.max(...channels.flatMap((channel) => [...channel].map(Math.abs)))

test('tuning, level, place, delay and the level of buses are in the files', () => {
  const rig = aKit([{ own: { values: { tuneCents: -1200, gainDb: -6 }, bus: 'bus-a' as never }, bands: [[aTone(24000, 0.5, RATE, 500)]] }])
  const bus = { ...createBus('bus-a' as never, 'Low'), values: { gainDb: -6 } }
  const pads = rig.kit.pads.map((pad) => ({ ...pad, rays: [{ ...pad.rays[0], values: { pan: 0.5, delaySeconds: 0.01 } }] }))
  const { wavs } = written({ ...rig, kit: { ...rig.kit, pads, buses: [bus] } })
  const [left, right] = wavs[0].channels
  expect(left.subarray(0, 480).every((sample) => sample === 0)).toBe(true)
  expect(left.length).toBeGreaterThan(47900) // an octave lower, twice as long
  const ups = right.reduce((count, sample, i) => count + (i > 0 && sample > 0 && right[i - 1] <= 0 ? 1 : 0), 0)
  expect(ups / (right.length / RATE)).toBeCloseTo(250, -1)
  expect(peak([right])).toBeCloseTo(0.5 * 10 ** (-12 / 20) * Math.sqrt(1.5), 3)
  expect(peak([left])).toBeCloseTo(0.5 * 10 ** (-12 / 20) * Math.sqrt(0.5), 3)
})

test('effects of buses and what is sent are in no file of a single hit, and that is said; switched off there is nothing to say', () => {
  const rig = aKit([{ own: { bus: 'bus-a' as never }, bands: [[anImpulse(100, RATE, 0.5)]] }])
  const crush = { id: 'i' as never, kind: 'reverb' as const, values: { mix: 1 }, choices: {}, bypass: false }
  const through = (bypass: boolean) => {
    const bus = { ...createBus('bus-a' as never, 'Low'), inserts: [{ ...crush, bypass }] }
    return written({
      ...rig,
      kit: { ...rig.kit, inserts: [{ ...crush, id: 'm' as never, kind: 'limiter' as const, values: {}, bypass }], buses: [bus] },
    })
  }
  const [on, off] = [through(false), through(true)]
  expect(on.wavs).toEqual(off.wavs)
  expect(on.notes).toEqual(['Effects of buses and of the whole kit, and what is sent to returns, are left out.'])
  expect(off.notes).toEqual([])
  const narrow = { ...createBus('bus-a' as never, 'Low'), values: { width: 0.5, lowCutHz: 90 } }
  expect(written({ ...rig, kit: { ...rig.kit, buses: [narrow] } }).notes).toEqual(['Width and low cut of buses are left out.'])
})

test('what is muted is left out, by pad, ray or bus, and that is said', () => {
  const rig = aKit([
    { own: { name: 'Oar', mute: true }, bands: [[anImpulse()]] },
    { own: { name: 'Keel' }, bands: [[anImpulse()]] },
  ])
  const { wavs, notes } = written(rig)
  expect(wavs.map(({ path }) => path)).toEqual(['Keel/Keel b1 t1.wav'])
  expect(notes).toEqual(['Oar is muted or silent; it was left out.'])
})

test('nothing that is written clips: all together or each by itself, as chosen, and it is said before', () => {
  const rig = aKit([{ bands: [[anImpulse(100, RATE, 0.5), anImpulse(100, RATE, 0.25)]] }])
  const gains = [0, 40]
  const bands = rig.kit.pads[0].bands.map((band) => ({
    ...band,
    turns: band.turns.map((turn, i) => ({
      ...turn,
      clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, { ...(clip as object), gainDb: gains[i] } as never])),
    })),
  }))
  const loud = { ...rig, kit: { ...rig.kit, pads: [{ ...rig.kit.pads[0], bands }] } }
  const together = written(loud)
  expect(together.isTooLoud).toBe(true)
  expect(together.notes[0]).toMatch(/1 of 2 files would pass full scale, by up to 28\.0 dB\. All are lowered together by 28\.0 dB/)
  const peaks = together.wavs.map(({ channels }) => peak(channels))
  expect(peaks[1]).toBeCloseTo(1, 5)
  expect(peaks[1] / peaks[0]).toBeCloseTo(50, 1)
  const each = written(loud, 'each')
  expect(each.wavs.map(({ channels }) => Number(peak(channels).toFixed(4)))).toEqual([0.5, 1])
  expect(each.notes[0]).toMatch(/Each of them is lowered/)
  expect(written(rig)).toMatchObject({ isTooLoud: false, notes: [] })
})

test('a softer band is as soft as its hardest strike is here, and a borrowed cell is written too', () => {
  const rig = aKit([{ own: { name: 'Keel', responses: [responseTo('velocity', 'gainDb', 20)] }, bands: [[anImpulse()], [anImpulse()]] }])
  const [pad] = rig.kit.pads
  const near = { ...pad.rays[0], id: 'ray-near' as never, name: 'Near', onMissing: 'nearest' as const }
  const bands = pad.bands.map((band, i) => (i === 1 ? { ...band, turns: band.turns.map((turn) => ({ ...turn, clips: { ...turn.clips, [near.id]: turn.clips[pad.rays[0].id] } })) } : band)) // prettier-ignore
  const { wavs, paths } = written({ ...rig, kit: { ...rig.kit, pads: [{ ...pad, rays: [...pad.rays, near], bands }] } })
  expect(paths).toEqual(['Keel/Keel b1 t1 Body.wav', 'Keel/Keel b2 t1 Body.wav', 'Keel/Keel b1 t1 Near.wav', 'Keel/Keel b2 t1 Near.wav', 'README.txt']) // prettier-ignore
  const top = pad.bands[1].fromVelocity - 1
  expect(peak(wavs[0].channels)).toBeCloseTo(0.5 * 10 ** ((20 * (top / 127 - 1)) / 20), 5)
  expect(peak(wavs[1].channels)).toBeCloseTo(0.5, 5)
})
