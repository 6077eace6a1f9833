import { aKit, anImpulse, hashOf, seeded, testIds } from './builders'
import { applyBatch, kitKind, sourceKind } from './document'
import type { AudioHash, BandId, TieId } from './ids'
import type { Kit } from './kit'
import { applyEdit, EditDoesNotApply, kitEditSchema } from './kit-edit'
import type { KitEdit } from './kit-edit'
import { invertEdit } from './kit-invert'
import { createPad, createRay, freeNote } from './make'
import { padSettings } from './resolve'
import { createSource } from './source'
import type { SourceEdit } from './source'
import { readKit, readSource } from './upgrade'

function start(): Kit {
  return aKit([{ bands: [[anImpulse(), anImpulse()], [anImpulse()]] }, { bands: [[anImpulse()]] }, { bands: [] }]).kit
}

/** Any edit that fits the kit, by seeded chance. */
function randomEdit(kit: Kit, random: () => number): KitEdit {
  const makeId = testIds(Math.floor(random() * 1e9))
  const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]
  const pad = any(kit.pads)
  const ray = any(pad.rays)
  const makers: (() => KitEdit)[] = [
    () => ({ type: 'setKit', fields: any([{ name: `n${random()}` }, { tempoBpm: 60 + random() * 100, gainDb: -random() }]) }),
    () => ({ type: 'addPad', pad: createPad(makeId, { name: 'new' }, freeNote(kit)), index: Math.floor(random() * (kit.pads.length + 1)) }),
    () => (kit.pads.length > 2 ? { type: 'removePad', padId: pad.id } : { type: 'setPadNotes', padId: pad.id, notes: [] }),
    () => ({ type: 'movePad', padId: pad.id, index: Math.floor(random() * kit.pads.length) }),
    () => ({ type: 'setPad', padId: pad.id, own: { pan: random() * 2 - 1, pick: any(['cycle', 'random', 'shuffle'] as const) } }),
    () => ({ type: 'setPad', padId: pad.id, own: {}, clear: ['pan', 'name'] }),
    () => ({ type: 'setPadNotes', padId: pad.id, notes: [Math.floor(random() * 128)] }),
    () => ({ type: 'setPadFilling', padId: pad.id, bands: any(kit.pads).bands, rays: [...pad.rays, createRay(makeId, 'more')].slice(-3) }),
    () => ({
      type: 'setRay',
      padId: pad.id,
      rayId: ray.id,
      fields: { gainDb: -6 * random(), mute: random() < 0.5, bus: 'bus-1' as never },
    }),
    () => ({ type: 'setRay', padId: pad.id, rayId: ray.id, fields: {}, clear: ['bus'] }),
    () =>
      pad.bands.length > 0
        ? { type: 'setBand', padId: pad.id, bandId: any(pad.bands).id, fields: { gainDb: random() } }
        : { type: 'setKit', fields: {} },
    () => {
      const turn = pad.bands.flatMap((band) => band.turns)[0]
      return turn
        ? { type: 'setClip', padId: pad.id, turnId: turn.id, rayId: ray.id, clip: any([null, 'intendedSilence' as const]) }
        : { type: 'setKit', fields: {} }
    },
    () => ({
      type: 'putTie',
      tie: {
        kind: 'chokeGroup',
        id: `tie-${Math.floor(random() * 3)}` as TieId,
        name: 'g',
        pads: [pad.id, any(kit.pads).id],
        fadeSeconds: random(),
      },
    }),
    () => ({ type: 'removeTie', tieId: `tie-${Math.floor(random() * 3)}` as TieId }),
    () => ({
      type: 'putGroove',
      groove: { id: 'groove-1' as never, name: 'g', lengthSteps: 16, stepsPerBeat: 4, swing: random(), strings: [] },
    }),
    () => ({ type: 'removeGroove', grooveId: 'groove-1' as never }),
    () => ({ type: 'putBus', bus: { id: 'bus-1' as never, name: 'b', gainDb: -random(), pan: 0, mute: false } }),
    () => ({ type: 'removeBus', busId: 'bus-1' as never }),
    () => ({
      type: 'replaceAudio',
      from: any(Object.keys(kit.audio)) as AudioHash,
      to: any([hashOf('f'), hashOf('e'), ...(Object.keys(kit.audio) as AudioHash[])]),
      info: { name: 'other.wav', sampleRateHz: any([44100, 48000]), frames: 40 + Math.floor(random() * 100), channels: 1 },
    }),
  ]
  return any(makers)()
}

test('any run of edits, undone by its inverses, comes back to the start', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const random = seeded(seed)
    const before = start()
    let kit = before
    const undo: KitEdit[] = []
    for (let step = 0; step < 40; step++) {
      const edit = kitEditSchema.parse(randomEdit(kit, random))
      undo.unshift(...invertEdit(kit, edit))
      kit = applyEdit(kit, edit)
      expect(readKit(kit)).toMatchObject({ ok: true })
    }
    for (const edit of undo) kit = applyEdit(kit, edit)
    expect(kit).toEqual(before)
  }
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
    expect(invertEdit(kit, edit)).toEqual([])
  }
})

test('replacing what fills a pad keeps every setting of it', () => {
  const kit = start()
  const [first, second] = kit.pads
  const after = applyEdit(applyEdit(kit, { type: 'setPad', padId: first.id, own: { pan: 0.3, pick: 'shuffle', maxStrikes: 3 } }), {
    type: 'setPadFilling',
    padId: first.id,
    bands: second.bands,
  })
  expect(after.pads[0].own).toEqual({ ...first.own, pan: 0.3, pick: 'shuffle', maxStrikes: 3 })
  expect(after.pads[0].notes).toEqual(first.notes)
})

test('edits that no longer fit are told with a reason, and the others still apply', () => {
  const kit = start()
  const pad = kit.pads[1]
  const { doc, refused } = applyBatch(kitKind, kit, [
    { type: 'removePad', padId: pad.id },
    { type: 'setPad', padId: pad.id, own: { pan: 1 } },
    { type: 'setKit', fields: { name: 'after' } },
  ])
  expect(doc.name).toBe('after')
  expect(refused).toEqual([
    { edit: { type: 'setPad', padId: pad.id, own: { pan: 1 } }, reason: 'The pad this change was made on is no longer there.' },
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
  kit = applyEdit(kit, { type: 'setPad', padId: leader.id, own: { pan: 0.5, gainDb: -3 } })
  kit = applyEdit(kit, { type: 'setPad', padId: follower.id, own: { gainDb: -9 } })
  kit = applyEdit(kit, { type: 'setPadLeader', padId: follower.id, leansOn: leader.id })
  expect(padSettings(kit, kit.pads[1])).toMatchObject({ pan: 0.5, gainDb: -9 })
})

test('fields that wait for later are kept as they are, and unknown ones are refused by name', () => {
  const kit = start()
  const waiting = {
    ...kit,
    ties: [{ kind: 'takeTurns', id: 'tie-9', pads: [kit.pads[0].id], pick: 'cycle' }],
    quickControls: [{ id: 'q', name: 'Depth', value: 0.5 }],
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
  const { doc, inverses } = applyBatch(sourceKind, source, edits)
  expect(doc.markers.map((m) => m.id)).toEqual(['m-2'])
  expect(applyBatch(sourceKind, doc, inverses).doc).toEqual(source)
})

test('another version of a file takes its place in the recording and in every clip, at the same seconds', () => {
  const kit = start()
  const from = Object.keys(kit.audio)[0] as AudioHash
  const info = { name: 'back.wav', sampleRateHz: 96000, frames: 150, channels: 1 }
  const after = applyEdit(kit, { type: 'replaceAudio', from, to: hashOf('f'), info })
  const [turn] = after.pads[0].bands[0].turns
  expect(Object.values(turn.clips)).toEqual([expect.objectContaining({ audio: hashOf('f'), startFrame: 0, endFrame: 150 })])
  expect(after.pads[1]).toBe(kit.pads[1])
  expect(Object.keys(after.audio)).not.toContain(from)
  const source = createSource(testIds(), from, { ...info, sampleRateHz: 48000, frames: 100 }, 'x', {
    measured: { peakDb: -1, loudnessDb: -9 },
  })
  const { doc, inverses } = applyBatch(sourceKind, source, [{ type: 'setAudio', audio: hashOf('f'), info }])
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
