import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'

import { createOffline, renderOffline, toScore } from '../../engine/offline'
import { golden, goldenScores, SCORE_RATE_HZ } from '../../engine/testing'
import { createGroove } from '../../groove/groove'
import { stepBeat } from '../groove-time'
import { applyBatch, editsOfNow, kitKind, startKind } from '../document'
import { triedDifference } from '../elements'
import type { ElementEdit } from '../elements'
import { kitFault } from '../fault'
import { usualPadSettings } from '../make'
import { padSettings } from '../resolve'
import { createStart, padStartOf } from '../start'
import { randomKitOf, seeded, testIds } from '../testing'
import { tidied } from '../tidy'
import { readKit, readSource, readStart } from '../upgrade'
import type { Read } from '../upgrade'
import { asFirstKit } from './as-first'
import { upgradedKitEdits } from './edits'
import { kitSchema } from './kit'
import type { Kit as OldKit } from './kit'
import { oldKitGround } from './old-ground'
import { swingOfOld } from './swing'
import { upgradedKit } from './upgrade'

/** Files that the first version wrote, and what its own code made of its own edits: nothing here can make them again. */
function kept<T>(name: string): T {
  return JSON.parse(gunzipSync(readFileSync(join(__dirname, 'ages', `${name}.json.gz`))).toString('utf8')) as T
}

/** A kit, a start and recordings as they were saved. */
const filesOfAges = () => kept<{ kit: unknown; start: unknown; source1: unknown; source2: unknown }>('files-1')

/** The kits of the golden renders as they were then, by name. */
const goldenKitsOfOld = () => kept<Record<string, unknown>>('golden-kits-1')

/** Kits of all that the first version could say, edits of every kind one after the other, and what became of them. */
const editsOfOld = () => kept<{ kit: unknown; steps: { edits: { type: string }[]; refused: number }[]; after: unknown }[]>('edits-1')

const set = (at: string[], value?: unknown): ElementEdit => ({ type: 'set', at, ...(value === undefined ? {} : { value }) })

function well<Doc>(read: Read<Doc>): Doc {
  if (!read.ok) throw new Error(read.message)
  return read.value
}

const ofOld = Object.keys(goldenKitsOfOld())
const goldenOnes = goldenScores
  .filter((make) => ofOld.includes(make().name) && make().name !== 'busy minute')
  .map((make) => [make().name, make] as const)

test.each(goldenOnes)('the kit of “%s” as the first version wrote it sounds as it did, to the bit', (name, make) => {
  const { audio, events, frames } = make()
  const { engine, loader } = createOffline(well(readKit(goldenKitsOfOld()[name])), SCORE_RATE_HZ, (hash) => audio.get(hash))
  const score = toScore(events.map((event) => ({ ...event, padSlot: loader.slotOf(event.padId) })))
  const hash = createHash('sha256')
  for (const channel of renderOffline(engine, score, frames, 4096)) hash.update(new Uint8Array(channel.buffer))
  expect(hash.digest('hex')).toBe(golden[name])
})

test('files of every age open and keep what they had', () => {
  const { kit, start, source1, source2 } = filesOfAges()
  const demo = well(readKit(kit))
  expect(kitFault(demo)).toBeUndefined()
  expect(demo.pads.map((pad) => padSettings(demo, pad).name)).toEqual((kit as OldKit).pads.map(({ own }) => own.name))
  expect(demo.grooves[0].swing).toBeCloseTo(0.5 + 0.25 / 6, 12)
  expect(well(readStart(start))).toMatchObject({
    version: 2,
    name: 'Tight and dark',
    pad: { values: { gainDb: -3, filter1CutoffHz: 900, filter1Damping: 2 - 1.95 * 0.3 }, choices: { filter1Kind: 'lowPass' } },
    cut: { waterLine: 0.3 },
  })
  expect(well(readSource(source1))).toMatchObject({ version: 3, origin: expect.any(String) as string, family: 'other' })
  expect(well(readSource(source2))).toEqual({ ...(source2 as object), version: 3 })
  expect(readKit({ ...(kit as object), gainDb: 'loud' })).toMatchObject({ ok: false, message: expect.stringMatching(/damaged at gainDb/) as string }) // prettier-ignore
})

test('what the first version’s own code made of its kits is what is made here of them, edit by edit', () => {
  let edits = 0
  for (const { kit, steps, after } of editsOfOld()) {
    let now = well(readKit(kit))
    for (const step of steps) {
      const upgraded = editsOfNow(kitKind, now, step.edits)
      expect(upgraded.refused).toHaveLength(step.refused)
      now = applyBatch(kitKind, now, upgraded.edits).doc
      edits += step.edits.length
    }
    expect(now).toEqual(well(readKit(after)))
    expect(kitFault(now)).toBeUndefined()
  }
  expect(edits).toBeGreaterThan(100)
})

test('upgraded(changed(kit)) is changed(upgraded(kit)) for kits of everything that could be said', () => {
  let edits = 0
  for (let seed = 1; seed <= 150; seed++) {
    const random = seeded(seed)
    const [before, after] = [0, 1].map(() => randomKitOf(kitSchema, random) as OldKit)
    Object.assign(after, { id: before.id })
    const way = triedDifference(before, after, oldKitGround)
    const upgraded = well(readKit(before))
    const made = upgradedKitEdits(upgraded, way)
    expect([seed, made.refused]).toEqual([seed, []])
    expect(applyBatch(kitKind, upgraded, made.edits)).toEqual({ doc: well(readKit(after)), refused: [] })
    edits += way.length
  }
  expect(edits).toBeGreaterThan(3000)
})

test('a kit seen as the first version would have written it comes back as it is', () => {
  for (let seed = 1; seed <= 100; seed++) {
    const kit = tidied(upgradedKit(randomKitOf(kitSchema, seeded(seed)) as OldKit))
    expect(tidied(upgradedKit(asFirstKit(kit)))).toEqual(kit)
  }
})

test('an old change touches what it meant, and leaves what the first version did not know', () => {
  const kit = well(readKit(randomKitOf(kitSchema, seeded(5))))
  const [pad] = kit.pads
  const more = applyBatch(kitKind, kit, [
    { type: 'setPad', padId: pad.id, own: { values: { filter2CutoffHz: 500, attackDb: 6 }, choices: { filter1Kind: 'notch' } } },
    { type: 'putTie', tie: { kind: 'limit', id: 'tie-limit' as never, name: 'two', pads: [pad.id], maxStrikes: 2 } },
  ]).doc
  const { edits } = editsOfNow(kitKind, more, [set(['pads', pad.id, 'own', 'shape', 'driveDb'], 12)])
  expect(edits).toEqual([{ type: 'set', at: ['pads', pad.id, 'own', 'values', 'driveDb'], value: 12 }])
  const after = applyBatch(kitKind, more, edits).doc
  expect(after.pads[0].own).toMatchObject({ values: { filter2CutoffHz: 500, attackDb: 6, driveDb: 12 }, choices: { filter1Kind: 'notch' } })
  expect(after.ties).toEqual(more.ties)
})

test('old changes that find no place any more, or would leave a broken kit, are told and change nothing', () => {
  const kit = well(readKit(randomKitOf(kitSchema, seeded(6))))
  const gone = editsOfNow(kitKind, kit, [set(['pads', 'pad-gone', 'own', 'gainDb'], 1)])
  expect(gone).toEqual({ edits: [], refused: [{ edit: expect.anything() as object, reason: expect.stringMatching(/no longer there/) as string }] }) // prettier-ignore
  const odd = [set(['pads', kit.pads[0].id, 'own', 'gainDb'], 'loud'), set(['pads', kit.pads[0].id, 'rays'], 5), set(['sparkle'], 5)]
  for (const edit of odd) expect(editsOfNow(kitKind, kit, [edit])).toMatchObject({ edits: [], refused: [{ edit }] })
})

test('old changes of a start are made on the start of now', () => {
  const start = well(readStart(filesOfAges().start))
  const { edits } = editsOfNow(startKind, start, [
    set(['pad', 'shape', 'filter', 'resonance'], 1),
    set(['pad', 'gainDb']),
    set(['name'], 'Wide'),
  ])
  const { doc } = applyBatch(startKind, start, edits)
  expect(doc).toEqual({ ...start, name: 'Wide', pad: { ...start.pad, values: { ...without(start.pad!.values!, 'gainDb'), filter1Damping: 2 - 1.95 } } }) // prettier-ignore
})

function without(of: object, key: string): object {
  return Object.fromEntries(Object.entries(of).filter(([name]) => name !== key))
}

test('what a start keeps of a pad, and all that a pad inherits, is what a pad can have of its own', () => {
  const start = createStart(testIds(), 'Usual', { pad: padStartOf(usualPadSettings) })
  expect(startKind.fault(start)).toBeUndefined()
  expect(well(readStart(JSON.parse(JSON.stringify(start))))).toEqual(start)
})

test('old grooves keep their timing, to the frame, whatever their swing, tempo and rate', () => {
  const random = seeded(11)
  const groove = createGroove(testIds(), 'g')
  for (let run = 0; run < 5000; run++) {
    const old = run < 6 ? run / 5 : random()
    const [step, tempo] = [Math.floor(random() * 1024), 20 + 380 * random()]
    const before = (step + (step % 2 === 1 ? old / 3 : 0)) * (60 / tempo / groove.stepsPerBeat)
    const now = (stepBeat({ ...groove, swing: swingOfOld(old) }, {}, step) * 60) / tempo
    expect(Math.abs(now - before)).toBeLessThan(1e-12)
    for (const rate of [44100, 48000]) expect(Math.round(now * rate)).toBe(Math.round(before * rate))
  }
})
