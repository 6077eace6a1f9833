/** @jest-environment node */
import { readWav } from '../audio/wav-read'
import { createGroove, withBead } from '../groove/groove'
import { aKit, aTone, seeded, testIds } from '../kit/builders'
import type { BusId } from '../kit/ids'
import type { Bus, Insert, Kit } from '../kit/kit'
import { createBus } from '../kit/make'
import { stemSeconds } from './stem-seconds'
import type { StemOptions } from './stem-seconds'
import { writeStems } from './stems'

const RATE = 24000
const insert = (kind: Insert['kind'], values: Insert['values'] = {}, more: Partial<Insert> = {}): Insert => ({ id: `${kind}-${JSON.stringify(values)}` as never, kind, values, choices: {}, bypass: false, ...more }) // prettier-ignore
const sendTo = (id: string, gainDb = -9) => ({ busId: id as BusId, values: { gainDb }, tap: 'post' as const })

/** Four pads on buses that hold them together, one of two rays, in a groove; `more` stands on the first bus too. */
function rig(more: Insert[] = []): { kit: Kit; audioOf: (hash: never) => ReturnType<typeof aTone> | undefined } {
  const random = seeded(6)
  const noise = {
    sampleRateHz: RATE,
    channels: [0, 1].map(() => Float32Array.from({ length: 9000 }, (_, i) => (random() - 0.5) * Math.exp(-i / 2500))),
  }
  const { kit, audio } = aKit([
    { own: { name: 'Hull', bus: 'drums' as never }, bands: [[aTone(12000, 0.8, RATE, 70)]] },
    { own: { name: 'Tarp', bus: 'drums' as never }, bands: [[noise]] },
    { own: { name: 'Oar', bus: 'bells' as never }, bands: [[aTone(20000, 0.4, RATE, 900)]] },
    { own: { name: 'Rope' }, bands: [[aTone(5000, 0.3, RATE, 300)]] },
  ])
  const buses: Bus[] = [
    {
      ...createBus('drums' as BusId, 'Drums'),
      sends: [sendTo('room')],
      inserts: [insert('equaliser', { band1Db: 4 }), insert('compressor', { threshold1Db: -30, ratio1: 8 }), ...more],
    },
    {
      ...createBus('bells' as BusId, 'Bells'),
      inserts: [
        insert('compressor', { threshold1Db: -40, threshold2Db: -35, ratio1: 5 }, { key: 'drums' as BusId, choices: { ranges: '2' } }),
        insert('gate', { thresholdDb: -34 }),
        insert('limiter', { ceiling1Db: -20 }),
      ],
    },
    {
      ...createBus('room' as BusId, 'Room'),
      isReturn: true,
      out: 'all' as BusId,
      inserts: [
        insert('reverb', { mix: 1, decaySeconds: 0.4 }),
        insert('limiter', { ceiling1Db: -24, ceiling2Db: -30 }, { choices: { ranges: '2' } }),
      ],
    },
    { ...createBus('all' as BusId, 'All'), inserts: [insert('echo', { seconds: 0.11, feedback: 0.3 })] },
  ]
  const steps = kit.pads.flatMap(({ id }, i) => [0, 3, 6, 10, 12].map((step) => ({ id, step: step + (i % 3) })))
  const groove = steps.reduce((made, { id, step }, i) => withBead(made, id, step, 60 + ((i * 37) % 67)), createGroove(testIds(2), 'Ebb'))
  const second = { ...kit.pads[1].rays[0], id: 'far' as never, name: 'Far', values: { pan: 0.6, gainDb: -4 }, sends: [sendTo('room', -3)] }
  const pads = kit.pads.map((pad, i) => (i === 1 ? { ...pad, rays: [{ ...pad.rays[0], name: 'Close' }, second], bands: pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: { ...turn.clips, far: Object.values(turn.clips)[0] } })) })) } : pad)) // prettier-ignore
  return {
    kit: { ...kit, tempoBpm: 130, pads: pads as Kit['pads'], buses, grooves: [groove], inserts: [insert('limiter')] },
    audioOf: (hash) => audio.get(hash),
  }
}

const options = (kit: Kit, more: Partial<StemOptions> = {}): StemOptions => ({
  by: 'pad',
  withEffects: true,
  what: kit.grooves[0].id,
  laps: 1,
  sampleRateHz: RATE,
  ...more,
})

function read(files: readonly { path: string; bytes: Uint8Array }[]): Map<string, readonly Float32Array[]> {
  return new Map(
    files.flatMap(({ path, bytes }) => {
      const wav = path.endsWith('.wav') ? readWav(bytes) : undefined
      return wav?.ok ? [[path.replace('.wav', ''), wav.file.audio.channels] as const] : []
    }),
  )
}

/** How far stems lie from the mix when they are added up, dB against it. */
function apartDb(stems: Map<string, readonly Float32Array[]>): number {
  const mix = stems.get('The mix')!
  let [error, power] = [0, 0]
  for (let side = 0; side < 2; side++)
    for (let i = 0; i < mix[side].length; i++) {
      let sum = 0
      for (const [name, sides] of stems) if (name !== 'The mix') sum += sides[side][i]
      error += (sum - mix[side][i]) ** 2
      power += mix[side][i] ** 2
    }
  return 10 * Math.log10(error / power)
}

test('stems by pad, ray and bus add up to the mix within -120 dB, through compressors, gates and limiters that they share', () => {
  const { kit, audioOf } = rig()
  const expected = { pad: ['Hull', 'Oar', 'Rope', 'Tarp'], ray: ['Hull', 'Oar', 'Rope', 'Tarp Close', 'Tarp Far'], bus: ['All', 'Bells', 'Drums', 'Without a bus'] } // prettier-ignore
  for (const by of ['pad', 'ray', 'bus'] as const) {
    const { files, notes } = writeStems(kit, options(kit, { by }), audioOf as never)!
    const stems = read(files)
    expect([...stems.keys()].filter((name) => name !== 'The mix').sort()).toEqual(expected[by])
    expect(new Set([...stems.values()].map(([left]) => left.length)).size).toBe(1)
    expect([by, apartDb(stems) < -120]).toEqual([by, true])
    for (const [name, [left]] of stems) expect([name, left.some((sample) => Math.abs(sample) > 0.003)]).toEqual([name, true])
    expect(notes).toEqual(['What stands in the whole kit works on all stems together and is in none of them, nor in the mix beside them.'])
  }
})

test('a pad by itself would not be lowered as the mix is: that is what its stem is for', () => {
  const { kit, audioOf } = rig()
  const stems = read(writeStems(kit, options(kit), audioOf as never)!.files)
  const alone = { ...kit, pads: kit.pads.map((pad, i) => (i === 0 ? pad : { ...pad, own: { ...pad.own, mute: true } })) }
  const byItself = read(writeStems(alone, options(kit), audioOf as never)!.files).get('Hull')!
  const differs = stems.get('Hull')![0].some((sample, i) => Math.abs(sample - (byItself[0][i] ?? 0)) > 0.003)
  expect(differs).toBe(true)
})

test('without effects they add up too and end sooner; what cannot be parted is named', () => {
  const { kit, audioOf } = rig()
  const bare = writeStems(kit, options(kit, { withEffects: false }), audioOf as never)!
  const [dry, wet] = [read(bare.files), read(writeStems(kit, options(kit), audioOf as never)!.files)]
  expect(apartDb(dry)).toBeLessThan(-120)
  expect(dry.get('The mix')![0].length).toBeLessThan(wet.get('The mix')![0].length)
  expect(bare.notes).toEqual(['Effects are left out.'])
  const driven = rig([insert('drive', { driveDb: 20 })])
  const { notes } = writeStems(driven.kit, options(driven.kit), driven.audioOf as never)!
  expect(notes).toContain('Drums has drive, which cannot be parted: what goes there adds up only nearly.')
})

test('a song is as long as its sections; what takes too long is ended when asked', () => {
  const { kit, audioOf } = rig()
  const [groove] = kit.grooves
  const song = { ...kit, song: [{ groove: groove.id, laps: 3 }] as never }
  expect(stemSeconds(song, { what: 'song', laps: 1 })).toBeCloseTo((3 * 4 * 60) / 130, 6)
  expect(stemSeconds(song, { what: groove.id, laps: 2 })).toBeCloseTo((2 * 4 * 60) / 130, 6)
  const shares: number[] = []
  expect(writeStems(kit, options(kit, { onDone: (share) => shares.push(share) < 2 }), audioOf as never)).toBeUndefined()
  expect(shares).toHaveLength(2)
})
