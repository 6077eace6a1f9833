import { aKit, anImpulse, hashOf, seeded, testIds } from './builders'
import { applyBatch, inversesOf, kitKind, makeChange, sourceKind } from './document'
import { EditDoesNotApply } from './elements'
import type { AudioHash, InsertId, BandId, TieId } from './ids'
import type { Kit } from './kit'
import { applyEdit, kitEditSchema } from './kit-edit'
import type { KitEdit } from './kit-edit'
import { padSettings } from './resolve'
import { createSource } from './source'
import type { SourceEdit } from './source'
import { randomEdit } from './testing'
import { readKit, readSource } from './upgrade'

function start(): Kit {
  return aKit([{ bands: [[anImpulse(), anImpulse()], [anImpulse()]] }, { bands: [[anImpulse()]] }, { bands: [] }]).kit
}

/** Every id a kit names, and every id it has. */
function namedAndHad(kit: Kit): { named: string[]; had: Set<string> } {
  const named: string[] = []
  const rays = kit.pads.map((pad) => new Set<string>(pad.rays.map((ray) => ray.id)))
  kit.pads.forEach((pad, i) => {
    named.push(
      ...[pad.leansOn, pad.own.bus, ...pad.rays.flatMap((ray) => [ray.bus, ...ray.sends.map((send) => send.busId)])].filter(
        (id) => id !== undefined,
      ),
    )
    const bands = [...pad.bands, ...pad.rays.flatMap((ray) => (ray.source.kind === 'clips' && ray.source.bands) || [])]
    for (const turn of bands.flatMap((band) => band.turns)) for (const id of Object.keys(turn.clips)) expect(rays[i]).toContain(id)
  })
  for (const tie of kit.ties) {
    if ('pads' in tie) named.push(...tie.pads)
    if ('from' in tie) named.push(tie.from, ...tie.to.map((to) => (typeof to === 'string' ? to : to.pad)))
    if ('steps' in tie) named.push(...tie.steps.map((step) => step.pad))
  }
  named.push(...kit.grooves.flatMap((groove) => groove.strings.map((string) => string.padId)))
  return { named, had: new Set<string>([...kit.pads, ...kit.buses].map((one) => one.id)) }
}

test('any run of edits of every kind can be kept, names nothing that is gone, and is undone by its inverses', () => {
  const kindsMade = new Set<string>()
  for (let seed = 1; seed <= 80; seed++) {
    const random = seeded(seed)
    const before = start()
    let kit = before
    const undo: KitEdit[][] = []
    for (let step = 0; step < 40; step++) {
      const edit = kitEditSchema.parse(randomEdit(kit, random))
      const { doc, edits, inverses, refused } = makeChange(kitKind, kit, [edit])
      expect(refused).toEqual([])
      if (doc !== kit) kindsMade.add(edit.type)
      expect(doc).toEqual(applyEdit(kit, edit))
      expect(
        applyBatch(
          kitKind,
          kit,
          edits.map((one) => kitEditSchema.parse(JSON.parse(JSON.stringify(one)))),
        ).doc,
      ).toEqual(doc)
      undo.unshift(inverses)
      kit = doc
      expect(readKit(kit)).toEqual({ ok: true, value: kit })
      const { named, had } = namedAndHad(kit)
      expect(named.filter((id) => !had.has(id))).toEqual([])
    }
    for (const edits of undo) kit = applyBatch(kitKind, kit, edits).doc
    expect(kit).toEqual(before)
  }
  expect(kindsMade.size).toBe(kitEditSchema.options.length)
})

test('an edit that changes nothing returns the very same kit', () => {
  const kit = start()
  const pad = kit.pads[0]
  const same: KitEdit[] = [
    { type: 'setKit', fields: { name: kit.name } },
    { type: 'setPad', padId: pad.id, own: { ...pad.own } },
    { type: 'setPadNotes', padId: pad.id, notes: [...pad.notes] },
    { type: 'movePad', padId: pad.id, index: 0 },
    { type: 'setBand', padId: pad.id, bandId: pad.bands[0].id, fields: { fromVelocity: 1 } },
    { type: 'removeTie', tieId: 'none' as TieId },
  ]
  for (const edit of same) {
    expect(applyEdit(kit, edit)).toBe(kit)
    expect(inversesOf(kitKind, kit, edit)).toEqual([])
  }
})

test('replacing what fills a pad keeps every setting of it', () => {
  const kit = start()
  const [first, second] = kit.pads
  const after = applyEdit(
    applyEdit(kit, { type: 'setPad', padId: first.id, own: { values: { pan: 0.3 }, pick: 'shuffle', maxStrikes: 3 } }),
    {
      type: 'setPadFilling',
      padId: first.id,
      bands: second.bands,
    },
  )
  expect(after.pads[0].own).toEqual({ ...first.own, values: { pan: 0.3 }, pick: 'shuffle', maxStrikes: 3 })
  expect(after.pads[0].notes).toEqual(first.notes)
})

test('edits that no longer fit are told with a reason, and the others still apply', () => {
  const kit = start()
  const pad = kit.pads[1]
  const { doc, refused } = applyBatch(kitKind, kit, [
    { type: 'removePad', padId: pad.id },
    { type: 'setPad', padId: pad.id, own: { values: { pan: 1 } } },
    { type: 'setKit', fields: { name: 'after' } },
  ])
  expect(doc.name).toBe('after')
  expect(refused).toEqual([
    { edit: { type: 'setPad', padId: pad.id, own: { values: { pan: 1 } } }, reason: 'The pad this change was made on is no longer there.' },
  ])
})

test('bands cannot be made to overlap and pads cannot lean in a circle', () => {
  const kit = start()
  const [first, second] = kit.pads
  expect(() =>
    applyEdit(kit, { type: 'setBand', padId: first.id, bandId: first.bands[0].id as BandId, fields: { fromVelocity: 90 } }),
  ).toThrow(EditDoesNotApply)
  const leaning = applyEdit(kit, { type: 'setPadLeader', padId: first.id, leansOn: second.id })
  expect(() => applyEdit(leaning, { type: 'setPadLeader', padId: second.id, leansOn: first.id })).toThrow('circle')
})

test('a pad takes from the one it leans on all that is not its own', () => {
  let kit = start()
  const [leader, follower] = kit.pads
  kit = applyEdit(kit, { type: 'setPad', padId: leader.id, own: { values: { pan: 0.5, gainDb: -3 } } })
  kit = applyEdit(kit, { type: 'setPad', padId: follower.id, own: { values: { gainDb: -9 } } })
  kit = applyEdit(kit, { type: 'setPadLeader', padId: follower.id, leansOn: leader.id })
  expect(padSettings(kit, kit.pads[1])).toMatchObject({ values: { pan: 0.5, gainDb: -9 } })
})

test('fields that wait for later are kept as they are, and unknown ones are refused by name', () => {
  const kit = start()
  const waiting = {
    ...kit,
    ties: [{ kind: 'takeTurns' as const, id: 'tie-9' as TieId, pads: [kit.pads[0].id], pick: 'cycle' as const }],
    tillers: [{ id: 'q', name: 'Depth', value: 0.5, to: [] }],
  }
  const read = readKit(JSON.parse(JSON.stringify(waiting)))
  expect(read).toMatchObject({ ok: true, value: waiting })
  expect(readKit({ ...kit, sparkle: 1 })).toMatchObject({ ok: false, message: expect.stringContaining('sparkle') })
  expect(readKit({ ...kit, version: 99 })).toMatchObject({ ok: false, message: expect.stringContaining('newer Heliaster') })
})

test('a recording is edited and undone like a kit', () => {
  const makeId = testIds()
  const source = createSource(makeId, 'a'.repeat(64) as never, { name: 'x.wav', sampleRateHz: 48000, frames: 1000, channels: 1 }, 'x')
  const marker = { id: 'm-1' as never, frame: 10, origin: 'hand' as const, pinned: true, removed: false }
  const edits: SourceEdit[] = [
    { type: 'putMarkers', markers: [marker] },
    { type: 'setSource', fields: { name: 'y', verdict: 'keep' } },
    {
      type: 'putMarkers',
      markers: [
        { ...marker, frame: 12, name: 'Knock' },
        { ...marker, id: 'm-2' as never },
      ],
    },
    { type: 'forgetMarkers', markerIds: ['m-1' as never] },
  ]
  const { doc, inverses } = makeChange(sourceKind, source, edits)
  expect(doc.markers.map((m) => m.id)).toEqual(['m-2'])
  expect(applyBatch(sourceKind, doc, inverses).doc).toEqual(source)
})

test('another version of a file takes its place in the recording and in every clip, at the same seconds', () => {
  const from = Object.keys(start().audio)[0] as AudioHash
  const room = { id: 'room' as InsertId, kind: 'room' as const, values: {}, choices: {}, bypass: false, audio: from }
  const kit = { ...start(), inserts: [room] }
  const info = { name: 'back.wav', sampleRateHz: 96000, frames: 150, channels: 1 }
  const after = applyEdit(kit, { type: 'replaceAudio', from, to: hashOf('f'), info })
  const [turn] = after.pads[0].bands[0].turns
  expect(Object.values(turn.clips)).toEqual([expect.objectContaining({ audio: hashOf('f'), startFrame: 0, endFrame: 150 })])
  expect(after.pads[1]).toBe(kit.pads[1])
  expect(after.inserts).toEqual([{ ...room, audio: hashOf('f') }])
  expect(Object.keys(after.audio)).not.toContain(from)
  const source = createSource(testIds(), from, { ...info, sampleRateHz: 48000, frames: 100 }, 'x', {
    measured: { peakDb: -1, loudnessDb: -9 },
  })
  const { doc, inverses } = makeChange(sourceKind, source, [{ type: 'setAudio', audio: hashOf('f'), info }])
  expect(doc).toMatchObject({ audio: hashOf('f'), info, name: 'x' })
  expect(doc.measured).toBeUndefined()
  expect(applyBatch(sourceKind, doc, inverses).doc).toEqual(source)
})

test('a recording saved by the first version opens with what it lacked', () => {
  const {
    addedAt: _a,
    origin: _o,
    favourite: _f,
    family: _y,
    channel: _c,
    ...old
  } = createSource(testIds(), hashOf('a'), { name: 'x.wav', sampleRateHz: 48000, frames: 1000, channels: 2 }, 'Recording 4')
  expect(readSource({ ...old, version: 1 })).toMatchObject({ ok: true, value: { origin: 'recorded', channel: 'both', family: 'other' } })
})
