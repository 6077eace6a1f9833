import { aKit, anImpulse, seeded, testIds } from './builders'
import { applyBatch, kitKind, makeChange, sourceKind } from './document'
import type { Kit } from './kit'
import type { KitEdit } from './kit-edit'
import { createBand, createBus } from './make'
import { valueOf } from './parameters'
import { padSettings } from './resolve'
import { createSource } from './source'
import type { Marker, SourceEdit } from './source'
import { randomEdit } from './testing'

function start(): Kit {
  return aKit([{ bands: [[anImpulse(), anImpulse()], [anImpulse()]] }, { bands: [[anImpulse()]] }, { bands: [] }]).kit
}

/** What two devices made of the same kit, joined: the first one's change arrives, the second one's is made again on it. */
function joined(kit: Kit, first: KitEdit[], second: KitEdit[]) {
  const one = makeChange(kitKind, kit, first)
  const other = makeChange(kitKind, kit, second)
  return { one, other, both: applyBatch(kitKind, one.doc, other.edits) }
}

/** Every value of a document by the names and ids on the way to it, found without any of the code that merges. */
function leaves(value: unknown, at = '', found = new Map<string, unknown>()): Map<string, unknown> {
  if (Array.isArray(value))
    for (const item of value) {
      const key =
        typeof item === 'object'
          ? (item.id ?? item.padId ?? item.step ?? (item.pad && item.from === undefined ? item.pad : undefined))
          : item
      leaves(item, `${at}[${key ?? JSON.stringify(item)}]`, found)
    }
  else if (typeof value === 'object' && value !== null && !('points' in value))
    for (const [key, one] of Object.entries(value)) leaves(one, `${at}.${key}`, found)
  else found.set(at, JSON.stringify(value))
  return found
}

test('two devices that change different things both keep what they made, down to the last value', () => {
  let compared = 0
  for (let seed = 1; seed <= 300; seed++) {
    const random = seeded(seed)
    let kit = start()
    for (let step = 0; step < 8; step++) kit = makeChange(kitKind, kit, [randomEdit(kit, random)]).doc
    const [first, second] = [[randomEdit(kit, random)], [randomEdit(kit, random)]]
    const { one, other, both } = joined(kit, first, second)
    if (both.refused.length > 0 || [...first, ...second].some((edit) => edit.type.startsWith('remove') || edit.type === 'replaceAudio'))
      continue
    const [before, mine, theirs, merged] = [kit, one.doc, other.doc, both.doc].map((doc) => leaves(doc))
    for (const [at, value] of mine!) {
      const isTheirs = theirs!.get(at) !== before!.get(at)
      if (value === before!.get(at) || isTheirs || !merged!.has(at)) continue
      expect([seed, at, merged!.get(at)]).toEqual([seed, at, value])
      compared++
    }
    for (const [at, value] of theirs!)
      if (value !== before!.get(at) && merged!.has(at) && (before!.has(at) || !mine!.has(at)))
        expect([seed, at, merged!.get(at)]).toEqual([seed, at, value])
  }
  expect(compared).toBeGreaterThan(100)
})

test('devices that fill different bands, beads or points of a shape lose nothing of each other', () => {
  const kit = start()
  const [pad] = kit.pads
  const makeId = testIds(7)
  const added = createBand(makeId, 100, [])
  const gained = pad.bands.map((band, i) => (i === 0 ? { ...band, values: { gainDb: -3 } } : band))
  const filled = joined(
    kit,
    [{ type: 'setPadFilling', padId: pad.id, bands: gained }],
    [{ type: 'setPadFilling', padId: pad.id, bands: [...pad.bands, added] }],
  ).both.doc.pads[0].bands
  expect(filled.map((band) => [band.fromVelocity, valueOf(band, 'gainDb')])).toEqual([[1, -3], [pad.bands[1].fromVelocity, 0], [100, 0]]) // prettier-ignore

  const level = { points: [{ seconds: 0.1, value: 0, bend: 0 }] }
  const shaped = joined(
    kit,
    [{ type: 'setPad', padId: pad.id, own: { envelopes: { level } } }],
    [{ type: 'setPad', padId: pad.id, own: { choices: { filter1Kind: 'lowPass' }, values: { filter1CutoffHz: 300 } } }],
  ).both.doc
  expect(padSettings(shaped, shaped.pads[0])).toMatchObject({
    envelopes: { level },
    choices: { filter1Kind: 'lowPass' },
    values: { filter1CutoffHz: 300 },
  })

  const groove = (steps: number[], velocity = 90) => ({
    id: 'groove-1' as never, name: 'g', lengthSteps: 16, stepsPerBeat: 4, swing: 0.5, strings: [{ padId: pad.id, beads: steps.map((step) => ({ id: `${pad.id}.${step}` as never, step, velocity })) }],
  }) // prettier-ignore
  const tried = makeChange(kitKind, kit, [{ type: 'putGroove', groove: groove([0, 4]) }]).doc
  const played = joined(
    tried,
    [{ type: 'putGroove', groove: groove([0, 4, 8]) }],
    [{ type: 'putGroove', groove: { ...groove([0, 4], 50), swing: 0.6 } }],
  )
  expect(played.both.doc.grooves[0]).toMatchObject({
    swing: 0.6,
    strings: [{ beads: [{ velocity: 50 }, { velocity: 50 }, { step: 8, velocity: 90 }] }],
  })
})

test('an undone shape leaves what another device has set on it since', () => {
  const kit = start()
  const [pad] = kit.pads
  const mine = makeChange(kitKind, kit, [{ type: 'setPad', padId: pad.id, own: { values: { driveDb: 6 } } }])
  const theirs = makeChange(kitKind, mine.doc, [{ type: 'setPad', padId: pad.id, own: { values: { driveDb: 6, crush: 0.5 } } }])
  expect(applyBatch(kitKind, theirs.doc, mine.inverses).doc.pads[0].own.values).toEqual({ crush: 0.5 })
  expect(applyBatch(kitKind, mine.doc, mine.inverses).doc).toEqual(kit)
})

test('a pad that goes while another device ties it leaves no tie behind, whichever came first', () => {
  const kit = start()
  const [first, second, third] = kit.pads
  const gone: KitEdit[] = [{ type: 'removePad', padId: second.id }]
  const tied: KitEdit[] = [
    { type: 'putTie', tie: { kind: 'choke', id: 'tie-1' as never, from: first.id, to: [second.id, third.id], fadeSeconds: 0 } },
  ]
  for (const [a, b] of [
    [gone, tied],
    [tied, gone],
  ]) {
    const { both } = joined(kit, a, b) // prettier-ignore
    expect(both.doc.pads).toHaveLength(2)
    expect(both.doc.ties).toEqual([expect.objectContaining({ to: [third.id] })])
  }
})

test('a pad whose leader goes keeps what it had from it', () => {
  const kit = start()
  const [leader, follower] = kit.pads
  const { doc } = makeChange(kitKind, kit, [
    { type: 'setPad', padId: leader.id, own: { values: { pan: 0.5, gainDb: -3 } } },
    { type: 'setPadLeader', padId: follower.id, leansOn: leader.id },
  ])
  const before = padSettings(doc, doc.pads[1])
  const after = makeChange(kitKind, doc, [{ type: 'removePad', padId: leader.id }]).doc
  expect(padSettings(after, after.pads[0])).toEqual(before)
  expect(after.pads[0].leansOn).toBeUndefined()
})

test('a batch that would carry a kit past what it may hold is refused whole, with the reason', () => {
  const kit = start()
  const buses = Array.from({ length: 33 }, (_, i): KitEdit => ({
    type: 'putBus',
    bus: createBus(`bus-${i}` as never, `${i}`),
  }))
  const many = applyBatch(kitKind, kit, buses)
  expect(many.doc).toBe(kit)
  expect(many.refused).toHaveLength(33)
  expect(many.refused[0].reason).toBe('A kit holds at most 32 buses.')
  const twin: KitEdit = { type: 'set', at: ['pads', kit.pads[1].id, 'id'], value: kit.pads[0].id }
  expect(applyBatch(kitKind, kit, [twin]).refused[0].reason).toContain('same id')
  const circle: KitEdit[] = kit.pads.map((pad, i) => ({ type: 'set', at: ['pads', pad.id, 'leansOn'], value: kit.pads[(i + 1) % 3].id }))
  expect(applyBatch(kitKind, kit, circle).refused[0].reason).toContain('circle')
  const odd: KitEdit[] = [
    { type: 'set', at: ['__proto__', 'polluted'], value: 1 },
    { type: 'set', at: ['sparkle'], value: 1 },
  ]
  for (const edit of odd) expect(applyBatch(kitKind, kit, [edit])).toMatchObject({ doc: kit, refused: [{ edit }] })
})

test('a leader in a circle through a third pad is refused and does not hang', () => {
  const kit = start()
  const [a, b, c] = kit.pads
  const circle = { ...kit, pads: [{ ...a, leansOn: b.id }, { ...b, leansOn: a.id }, c] }
  expect(applyBatch(kitKind, circle, [{ type: 'setPadLeader', padId: c.id, leansOn: a.id }]).refused).toHaveLength(1)
})

test('two devices that touch the same found marker both keep what they set on it', () => {
  const source = createSource(testIds(), 'a'.repeat(64) as never, { name: 'x.wav', sampleRateHz: 48000, frames: 1000, channels: 1 }, 'x')
  const found: Marker = { id: 'found-100' as never, frame: 100, origin: 'found', pinned: false, removed: false }
  const change = (changes: Partial<Marker>): SourceEdit[] => [{ type: 'putMarkers', markers: [{ ...found, ...changes }] }]
  const named = makeChange(sourceKind, source, change({ name: 'Knock' }))
  const moved = makeChange(sourceKind, source, change({ frame: 120, clip: { gainDb: 3 } }))
  const { doc } = applyBatch(sourceKind, named.doc, moved.edits)
  expect(doc.markers).toEqual([{ ...found, name: 'Knock', frame: 120, clip: { gainDb: 3 } }])
  expect(applyBatch(sourceKind, doc, named.inverses).doc.markers).toEqual([]) // what was put in by this step goes with it
})

test('twenty thousand markers are passed and brought back in one step', () => {
  const markers = Array.from({ length: 20000 }, (_, i): Marker => ({
    id: `found-${i * 40}` as never,
    frame: i * 40,
    origin: 'found',
    pinned: false,
    removed: false,
  }))
  const source = createSource(testIds(), 'a'.repeat(64) as never, { name: 'x.wav', sampleRateHz: 48000, frames: 800000, channels: 1 }, 'x')
  const put = makeChange(sourceKind, source, [
    { type: 'putMarkers', markers: markers.map((marker) => ({ ...marker, verdict: 'pass' as const })) },
  ])
  expect(put.doc.markers).toHaveLength(20000)
  expect(applyBatch(sourceKind, put.doc, put.inverses).doc).toEqual(source)
})
