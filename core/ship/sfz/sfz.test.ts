import { readWav } from '../../audio/wav-read'
import { createOffline, EventType, renderOffline, toScore } from '../../engine'
import type { StrikeRecord } from '../../engine'
import { aKit, anImpulse, aTone, seeded } from '../../kit/builders'
import type { Rig } from '../../kit/builders'
import type { Clip, Kit, Pad } from '../../kit/kit'
import {
  audioInfoSchema, bandSchema, busSchema, clipFieldsSchema, kitSchema, padSchema, padSettingsSchema, raySchema, tieSchema, turnSchema,
} from '../../kit/kit' // prettier-ignore
import { createBus } from '../../kit/make'
import { parameterNames, parameterRow } from '../../kit/parameters'
import { responseTo } from '../../kit/responses'
import { responseSchema } from '../../kit/shape'
import { gainsOf, readSfz, regionsOfStrike, value } from '../testing'
import type { Opcodes } from '../testing'
import { sfzFates } from './fates'
import { panOf } from './regions'
import { sfzOmissions, writeSfz } from './write-sfz'

const RATE = 48000
const audioOf = (rig: Rig) => (hash: Parameters<typeof rig.audio.get>[0]) => rig.audio.get(hash)

function written(rig: Rig) {
  const { files, notes } = writeSfz(rig.kit, audioOf(rig))
  const regions = readSfz(new TextDecoder().decode(files[0].bytes))
  const samples = new Map(files.map(({ path, bytes }) => [path, bytes]))
  const sampleOf = (region: Opcodes) => {
    const read = readWav(samples.get(`samples/${region.get('sample')}`)!)
    if (!read.ok) throw new Error(read.message)
    return read.file.audio
  }
  return { regions, notes, sampleOf, files }
}

/** Each strike alone, its first frame left and right, and what the engine decided. */
function played({ kit, audio }: Rig, strikes: readonly { pad: number; velocity: number; note?: number }[]) {
  const { engine, loader } = createOffline({ ...kit, values: { gainDb: (kit.values.gainDb ?? 0) - 60 } }, RATE, (hash) => audio.get(hash))
  const events = strikes.map(({ pad, velocity, note }, i) => {
    return { frame: 400 * i, type: EventType.strike, padSlot: loader.slotOf(kit.pads[pad].id), velocity, note }
  })
  const records: StrikeRecord[] = []
  const [left, right] = renderOffline(engine, toScore(events), 400 * strikes.length, 4096, (record) => records.push(record))
  const slots = kit.pads.map((pad) => loader.slotOf(pad.id))
  return { firsts: strikes.map((_, i) => [left[400 * i] * 1000, right[400 * i] * 1000]), records, slots }
}

/** Pads of impulses with everything that moves their level, at random. */
function randomRig(seed: number): Rig {
  const random = seeded(seed)
  const db = (most: number) => Math.round((random() * 2 - 1) * most)
  const rig = aKit(
    [0, 1, 2].map(() => ({
      own: {
        values: { gainDb: db(6) - 6, pan: db(80) / 100 },
        mute: random() < 0.15,
        responses: random() < 0.7 ? [{ ...responseTo('velocity', 'gainDb', 6 + db(6), { bend: random() - 0.5 }), bypass: random() < 0.2 }] : [], // prettier-ignore
      },
      bands: Array.from({ length: 1 + Math.floor(random() * 3) }, () => [anImpulse(300, RATE, 0.1 + random() / 2)]),
    })),
  )
  const buses = [0, 1].map((i) => ({
    ...createBus(`bus-${i}` as never, 'b'),
    values: { gainDb: db(9), pan: db(40) / 100 },
    mute: random() < 0.2,
  }))
  const pads = rig.kit.pads.map((pad): Pad => {
    const law = random() < 0.5 ? ('power' as const) : ('linear' as const)
    const second = random() < 0.4 ? [{ ...pad.rays[0], id: `${pad.id}-second` as never, values: { gainDb: db(6), pan: db(50) / 100 }, invert: random() < 0.3, onMissing: 'nearest' as const }] : [] // prettier-ignore
    const bands = pad.bands.map((band, i) => ({
      ...band,
      values: { gainDb: db(4) },
      blendLaw: law,
      blendVelocities: i > 0 && random() < 0.5 ? 1 + Math.floor(random() * 30) : 0,
      turns: band.turns.map((turn) => {
        const clip = { ...(turn.clips[pad.rays[0].id] as object), gainDb: db(5), invert: random() < 0.2 } as never
        return { ...turn, clips: { [pad.rays[0].id]: clip, ...(second.length > 0 && i === 0 ? { [second[0].id]: clip } : {}) } }
      }),
    }))
    const rays = [...pad.rays, ...second].map((ray) => ({ ...ray, ...(random() < 0.3 ? { bus: buses[0].id } : {}), mute: random() < 0.1 }))
    return { ...pad, rays, bands, own: { ...pad.own, ...(random() < 0.5 ? { bus: buses[1].id } : {}) } }
  })
  return { ...rig, kit: { ...rig.kit, values: { gainDb: db(4) - 24 }, buses, pads } }
}

test('random kits are as loud and stand where they do here, at every velocity, for a plain reader of SFZ', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const rig = randomRig(seed)
    const { regions, sampleOf } = written(rig)
    const strikes = rig.kit.pads.flatMap((_, pad) => Array.from({ length: 43 }, (_, i) => ({ pad, velocity: 1 + 3 * i })))
    const { firsts } = played(rig, strikes)
    strikes.forEach(({ pad, velocity }, i) => {
      const heard = regionsOfStrike(regions, rig.kit.pads[pad].notes[0], velocity)
      const sum = [0, 0]
      for (const region of heard) gainsOf(region, velocity).forEach((gain, side) => (sum[side] += gain * sampleOf(region).channels[0][0]))
      const off = Math.max(...sum.map((one, side) => Math.abs(one - firsts[i][side])))
      const size = Math.max(...firsts[i].map(Math.abs))
      expect([seed, pad, velocity, off < 0.005 * size + 1e-6]).toEqual([seed, pad, velocity, true])
    })
  }
})

test('each strike silences what it silences here, and none silences itself', () => {
  const random = seeded(9)
  for (let run = 0; run < 12; run++) {
    const rig = aKit(Array.from({ length: 5 }, (_, i) => ({ own: { mode: i === 4 ? ('silencer' as const) : ('oneShot' as const) }, bands: i === 4 ? [] : [[aTone(20000)]] }))) // prettier-ignore
    const ids = rig.kit.pads.map(({ id }) => id)
    const some = () => ids.filter(() => random() < 0.4)
    const ties: Kit['ties'] = [
      { kind: 'chokeGroup', id: 'tie-a' as never, name: 'a', pads: some(), fadeSeconds: 0.01 },
      { kind: 'choke', id: 'tie-b' as never, from: ids[4], to: some().filter((id) => id !== ids[4]), fadeSeconds: 0.02 },
      { kind: 'choke', id: 'tie-c' as never, from: ids[0], to: some().filter((id) => id !== ids[0]), fadeSeconds: 0 },
    ]
    const kit = { ...rig.kit, ties }
    const { regions } = written({ ...rig, kit })
    const order = Array.from({ length: 30 }, () => Math.floor(random() * 5))
    const { records, slots } = played({ ...rig, kit }, order.map((pad) => ({ pad, velocity: 100 }))) // prettier-ignore
    let sounding = new Set<Opcodes>()
    order.forEach((pad, i) => {
      const struck = regionsOfStrike(regions, kit.pads[pad].notes[0], 100)
      const groups = new Set(struck.map((region) => value(region, 'group', 0)))
      const stopped = [...sounding].filter((region) => groups.has(value(region, 'off_by', -1)))
      const names = new Set(stopped.map((region) => value(region, 'group', 0) - 1))
      expect([...names].sort()).toEqual(records[i].chokedSlots.map((slot) => slots.indexOf(slot)).sort())
      sounding = new Set([...[...sounding].filter((region) => !stopped.includes(region)), ...struck])
      for (const region of stopped) expect(region.get('off_mode') === 'fast' || value(region, 'off_time', 0) > 0).toBe(true)
    })
  }
})

test('a choke takes as long in SFZ as here', () => {
  const rig = aKit([{ bands: [[aTone(2000)]] }, { bands: [[aTone(2000)]] }])
  const [a, b] = rig.kit.pads.map(({ id }) => id)
  const choke = { kind: 'choke' as const, id: 'tie-a' as never, from: a, to: [b], fadeSeconds: 0.25 }
  const { regions, notes } = written({ ...rig, kit: { ...rig.kit, ties: [choke] } })
  const silenced = regions.find((region) => region.has('off_by'))!
  expect([silenced.get('off_mode'), silenced.get('off_time')]).toEqual(['time', '0.25'])
  expect(notes).toEqual([])
})

test('levels stay within what SFZ takes: files take what they can, and all are lowered alike by the rest', () => {
  const rig = aKit([{ own: { values: { gainDb: 30 } }, bands: [[anImpulse(100, RATE, 0.01)]] }, { own: { values: { gainDb: 20 } }, bands: [[anImpulse(100, RATE, 0.5)]] }]) // prettier-ignore
  const { regions, sampleOf, notes } = written(rig)
  const loudness = regions.map((region) => value(region, 'volume', 0) + 20 * Math.log10(sampleOf(region).channels[0][0]))
  expect(Math.max(...regions.map((region) => value(region, 'volume', 0)))).toBeLessThanOrEqual(6)
  expect(loudness[1] - loudness[0]).toBeCloseTo(20 - 30 + 20 * Math.log10(50), 3)
  expect(notes.join()).toMatch(/whole kit is 8\.0 dB softer/)
})

test('a ray that follows the bend does so in SFZ, by as much', () => {
  const rig = aKit([{ bands: [[aTone(500)]] }])
  const [pad] = rig.kit.pads
  const kit = { ...rig.kit, pads: [{ ...pad, rays: [{ ...pad.rays[0], values: { bendTrack: 0.5 } }] }] }
  const text = new TextDecoder().decode(writeSfz(kit, (hash) => rig.audio.get(hash)).files.find(({ path }) => path.endsWith('.sfz'))!.bytes)
  expect(text).toMatch(/bend_up=100\b/)
  expect(text).toMatch(/bend_down=-100\b/)
})

test('a shape that rings far past full scale is written whole, and its level is made good', () => {
  const own = { values: { gainDb: -40, filter1CutoffHz: 440, filter1Damping: 0.05 }, choices: { filter1Kind: 'lowPass' as const } }
  const rig = aKit([{ own, bands: [[aTone(24000, 0.5)]] }])
  const { regions, sampleOf } = written(rig)
  const samples = sampleOf(regions[0]).channels[0]
  const { engine, loader } = createOffline(rig.kit, RATE, (hash) => rig.audio.get(hash))
  const [left] = renderOffline(engine, toScore([{ frame: 0, type: EventType.strike, padSlot: loader.slotOf(rig.kit.pads[0].id), velocity: 127 }]), 24000) // prettier-ignore
  const gain = gainsOf(regions[0], 127)[0]
  for (const frame of [1000, 5000, 20000]) expect(gain * samples[frame]).toBeCloseTo(left[frame], 4)
})

test('a shaped hit is written at its tuning, one file for each note it follows', () => {
  const level = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.1, value: 0, bend: 0 }] } // prettier-ignore
  const rig = aKit([{ own: { values: { tuneCents: -1200 }, rootNote: 60, envelopes: { level } }, bands: [[aTone(48000)]] }])
  const kit = {
    ...rig.kit,
    pads: rig.kit.pads.map((pad) => ({ ...pad, notes: [60, 72], rays: [{ ...pad.rays[0], values: { keyTrack: 1 } }] })),
  }
  const { regions, sampleOf } = written({ ...rig, kit })
  expect(regions.map((region) => region.get('transpose'))).toEqual([undefined, undefined])
  for (const [i, hz] of [220, 440].entries()) {
    const samples = sampleOf(regions[i]).channels[0]
    expect(samples.length / RATE).toBeCloseTo(0.1, 3) // as long as the envelope, whatever the pitch
    expect(hzOf(samples)).toBeCloseTo(hz, 0)
  }
})

/** How often a wave comes up through zero, from the first time to the last. */
function hzOf(samples: Float32Array): number {
  const up = Array.from(samples.keys()).filter((i) => i > 0 && samples[i] > 0 && samples[i - 1] <= 0)
  return ((up.length - 1) * RATE) / (up[up.length - 1] - up[0])
}

test('what is set for slices is in the file of a clip; what they send is left out, and that is said', () => {
  const rig = aKit([{ bands: [[aTone(9600, 0.5, RATE, 500)]] }])
  const bus = { ...createBus('bus-a' as never, 'Room'), isReturn: true }
  const slices = [
    { id: 'a', frame: 0, values: {}, sends: { [bus.id]: { gainDb: 0 } } },
    { id: 'b', frame: 4800, values: { gainDb: -12, pan: 0.5 } },
  ]
  const [pad] = rig.kit.pads
  const bands = pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, { ...(clip as Clip), slices }])) })) })) // prettier-ignore
  const { regions, sampleOf, notes } = written({ ...rig, kit: { ...rig.kit, buses: [bus], pads: [{ ...pad, bands }] } })
  const [left, right] = sampleOf(regions[0]).channels
  const most = (channel: Float32Array, from: number, to: number) => channel.subarray(from, to).reduce((peak, sample) => Math.max(peak, Math.abs(sample)), 0) // prettier-ignore
  const whole = most(left, 0, 4000)
  expect(most(right, 0, 4000)).toBeCloseTo(whole, 6)
  expect(most(left, 5000, 9600) / whole).toBeCloseTo(10 ** (-12 / 20) * Math.sqrt(0.5), 3)
  expect(most(right, 5000, 9600) / whole).toBeCloseTo(10 ** (-12 / 20) * Math.sqrt(1.5), 3)
  expect(notes.join(' ')).toContain('what slices of a clip send to buses is left out')
})

test('the place is where equal powers of both sides put it', () => {
  for (const pan of [-1, -0.5, 0, 0.3, 1]) {
    const angle = ((panOf(pan) / 100 + 1) * Math.PI) / 4
    expect([Math.SQRT2 * Math.cos(angle), Math.SQRT2 * Math.sin(angle)].map((gain) => Number(gain.toFixed(9)))).toEqual(
      [Math.sqrt(1 - pan), Math.sqrt(1 + pan)].map((gain) => Number(gain.toFixed(9))),
    )
  }
})

test('every field of the schema is written, in the samples, of no sound, not played, or named when it is lost', () => {
  const keysOf = (schema: { shape: object }) => Object.keys(schema.shape).sort()
  const tables: [keyof typeof sfzFates, { shape: object }][] = [
    ['kit', kitSchema], ['pad', padSchema], ['settings', padSettingsSchema], ['ray', raySchema], ['band', bandSchema], ['turn', turnSchema],
    ['clip', clipFieldsSchema], ['bus', busSchema], ['response', responseSchema],
  ] // prettier-ignore
  for (const [name, schema] of tables) expect([name, Object.keys(sfzFates[name]).sort()]).toEqual([name, keysOf(schema)])
  const played = parameterNames.filter((name) => parameterRow(name).played.length > 0)
  expect(Object.keys(sfzFates.parameter).sort()).toEqual([...played].sort())
  expect(Object.keys(sfzFates.tie).sort()).toEqual(tieSchema.options.map((option) => [...option.shape.kind.values][0]).sort())
  expect(keysOf(audioInfoSchema)).toHaveLength(8) // what is known of files is told by the files
})

test('what SFZ cannot say is named, pad by pad', () => {
  const lost = (change: (pad: Pad) => Partial<Pad>, more: Partial<Kit> = {}) => {
    const { kit } = aKit([
      {
        own: { name: 'Keel' },
        bands: [
          [anImpulse(), anImpulse()],
          [anImpulse(), anImpulse()],
        ],
      },
    ])
    return sfzOmissions({ ...kit, pads: kit.pads.map((pad) => ({ ...pad, ...change(pad) })), ...more })
  }
  const withOwn = (own: Pad['own']) => lost((pad) => ({ own: { ...pad.own, ...own } }))
  const saying = (words: RegExp) => [{ where: 'Keel', words: expect.stringMatching(words) as string }]
  expect(withOwn({})).toEqual([])
  const filtered = { values: { filter1CutoffHz: 900 }, choices: { filter1Kind: 'lowPass' as const } }
  expect(withOwn({ mode: 'loopUntilLetGo', ...filtered })).toEqual(saying(/goes round until let go here; shaped as it is/))
  expect(withOwn({ mode: 'loopUntilLetGo' })).toEqual([])
  expect(withOwn({ mode: 'loopUntilStruckAgain' })).toEqual(saying(/struck again/))
  expect(withOwn({ counter: 'pad' })).toEqual(saying(/counted over the whole pad/))
  expect(withOwn({ startAgain: 2 })).toEqual(saying(/begin anew/))
  expect(withOwn({ pick: 'shuffle' })).toEqual(saying(/no shuffle/))
  expect(withOwn({ mute: true })).toEqual(saying(/muted/))
  const response = responseTo('chance', 'tuneCents', 30)
  expect(withOwn({ responses: [response] })).toEqual(saying(/chance moves the tuning/))
  expect(withOwn({ responses: [{ ...response, bypass: true }] })).toEqual([])
  expect(lost((pad) => ({ rays: [{ ...pad.rays[0], mute: true }] }))).toEqual(saying(/ray Body is muted/))
  const laws = { blendVelocities: 9 }
  expect(lost((pad) => ({ bands: [pad.bands[0], { ...pad.bands[1], ...laws }, { ...pad.bands[1], ...laws, fromVelocity: 100, blendLaw: 'linear' as const }] }))).toEqual(saying(/two laws/)) // prettier-ignore
  expect(lost((pad) => ({ bands: [pad.bands[0], { ...pad.bands[1], ...laws, blendLaw: 'linear' as const }] }))).toEqual([]) // where nothing fades there is no law
  expect(lost(() => ({}), { maxStrikes: 8 })).toEqual([{ where: 'Test', words: expect.stringMatching(/limit of 8/) as string }])
})

test('parts of a recording are written as turns of their pads, and what only buses and ties say is told', () => {
  const { kit, audio } = aKit([{ bands: [[aTone(8000)]] }, { bands: [] }, { bands: [] }])
  const [clip] = Object.values(kit.pads[0].bands[0].turns[0].clips)
  const parts = [1, 2, 1].map((place, i) => ({ id: `p${i}`, pad: kit.pads[place].id }))
  const room = { ...createBus('bus-r' as never, 'Room'), isReturn: true }
  const send = { busId: room.id, values: {}, tap: 'post' as const }
  const ties = [
    { id: 'parts' as never, kind: 'parts' as const, clip: clip as never, startsEveryBeats: 1, parts },
    { id: 'choke' as never, kind: 'choke' as const, from: kit.pads[0].id, to: [kit.pads[1].id], fadeSeconds: 0, on: 'letGo' as const },
  ]
  const pads = kit.pads.map((pad, i) => (i === 0 ? { ...pad, rays: [{ ...pad.rays[0], sends: [send] }] } : pad))
  const responses = [{ id: 'r', draw: 0, from: { kind: 'wheel' as const }, to: [{ scope: 'kit' as const, param: 'gainDb' }], amount: 3, bypass: false }] // prettier-ignore
  const written = (more: object, of = room) => writeSfz({ ...kit, buses: [of], ties, pads, ...more }, (hash) => audio.get(hash))
  const shipped = written({ responses }, { ...room, values: { width: 0.5 } })
  const text = new TextDecoder().decode(shipped.files.find(({ path }) => path.endsWith('.sfz'))!.bytes)
  expect(text.match(/<region>/g)).toHaveLength(4)
  for (const words of [
    'begin in time is left out',
    'sends to buses is left out',
    'what is silenced when a pad is let go is left out',
    'what moves the mix stands as it is set',
    'width and low cut',
  ])
    expect(shipped.notes.join(' ')).toContain(words)
  expect(written({}).notes.join(' ')).not.toMatch(/what moves the mix|width and low cut/)
})
