import fc from 'fast-check'

import { RulesModel } from '../engine/testing/rules-model'
import type { RuleMove } from '../engine/testing/rules-model'
import { applyEdit, createBand, createKit, createPad, createTurn, kitSchema, wholeClip } from '../kit'
import type { AudioHash, Kit, KitEdit, Pad, PadId, Tie, TieId } from '../kit'
import { testIds } from '../kit/testing'
import { circlesOf, drawnTie, lineKinds, limitWords, padsOfTie, tieConflicts, tieLines, tieWords, withoutAlong, withoutPadInTie } from '.'

const RATE = 48000
const makeId = testIds(20)
const NAMES = ['Hull', 'Hatch', 'Bilge', 'Oar', 'Keel']
/** Each pad sounds a level of its own, a power of two, for two seconds: a sum says which of them sound. */
const pads: Pad[] = NAMES.map((name, i) => {
  const pad = createPad(makeId, { name, responses: [] }, 40 + i)
  const clip = wholeClip(i.toString(16).padStart(64, '0') as AudioHash, { frames: 2 * RATE, channels: 1 })
  return { ...pad, bands: [createBand(makeId, 1, [createTurn(makeId, { [pad.rays[0]!.id]: clip })])] }
})
const [hull, hatch, bilge, oar, keel] = pads as [Pad, Pad, Pad, Pad, Pad]
const plain: Kit = { ...createKit(makeId, 'Ties'), pads }
const withTies = (...ties: Tie[]): Kit => ({ ...plain, ties })
const id = (text: string) => text as TieId
const edited = (kit: Kit, edits: readonly KitEdit[]): Kit => edits.reduce(applyEdit, kit)

/** The names of the pads that sound at a time, after strikes at times, s; by the slow plain model of the rules. */
function sounding(kit: Kit, strikes: readonly (readonly [seconds: number, pad: Pad])[], atSeconds: number): string[] {
  const moves = strikes.map(([seconds, pad], i): RuleMove => ({ frame: seconds * RATE, kind: 'strike', number: pads.indexOf(pad), value: 100, key: i + 1 })) // prettier-ignore
  const level = new RulesModel(kit, RATE, ({ audio }) => 2 ** parseInt(audio, 16), moves).levelAt(Math.round(atSeconds * RATE))
  return NAMES.filter((_, i) => (Math.round(level) >> i) & 1)
}

const anyPad = fc.constantFrom(...pads.map((pad) => pad.id))
const drawing = fc.array(fc.record({ kind: fc.constantFrom(...lineKinds), from: anyPad, to: anyPad }), { maxLength: 25 })
const drawn = (lines: readonly { kind: (typeof lineKinds)[number]; from: PadId; to: PadId }[]) =>
  lines.reduce((kit, { kind, from, to }) => edited(kit, drawnTie(makeId, kit, kind, from, to)), plain)

test('whatever is drawn is a whole kit; drawing it once more changes nothing, and every tie is said', () => {
  fc.assert(
    fc.property(drawing, fc.constantFrom(...lineKinds), anyPad, anyPad, (lines, kind, from, to) => {
      const before = drawn(lines)
      const kit = edited(before, drawnTie(makeId, before, kind, from, to))
      expect(kitSchema.safeParse(kit).error).toBeUndefined()
      if (kind !== 'chokeGroup' || from !== to) expect(drawnTie(makeId, kit, kind, from, to)).toEqual([])
      for (const tie of kit.ties) {
        expect(tieWords(kit, tie)).toMatch(/^\S.*\.$/)
        for (const padId of padsOfTie(tie))
          expect(tieWords(kit, tie)).toMatch(new RegExp(NAMES[pads.findIndex((pad) => pad.id === padId)]! + '|itself|its own'))
      }
      for (const pad of pads)
        expect(kit.ties.filter((tie) => tie.kind === 'chokeGroup' && tie.pads.includes(pad.id)).length).toBeLessThan(2)
    }),
  )
})

test('a pad taken out of a tie is in no line of it, and the others stay tied', () => {
  fc.assert(
    fc.property(drawing, fc.nat(99), fc.nat(99), (lines, which, whom) => {
      const kit = drawn(lines)
      if (kit.ties.length === 0) return
      const tie = kit.ties[which % kit.ties.length]!
      const among = tie.kind === 'choke' ? tie.to : tie.kind === 'alsoStrike' ? tie.to.map(({ pad }) => pad) : padsOfTie(tie)
      const gone = among[whom % among.length]!
      const left = edited(kit, withoutPadInTie(tie, gone))
      const own = tieLines(left).filter(({ tieId }) => tieId === tie.id)
      expect(own.every(({ from, to }) => to !== gone && (from !== gone || tie.kind === 'choke' || tie.kind === 'alsoStrike'))).toBe(true)
      expect(left.ties.filter((one) => one.id !== tie.id)).toEqual(kit.ties.filter((one) => one.id !== tie.id))
      expect(edited(left, withoutAlong(left)).ties.some(({ kind }) => kind === 'alsoStrike')).toBe(false)
    }),
  )
})

test('what is said to win is what sounds: silenced and struck along, it sounds; cut off by what it strikes, the struck one stops', () => {
  const along: Tie = {
    id: id('a'),
    kind: 'alsoStrike',
    from: hull.id,
    to: [{ pad: hatch.id, chance: 1, gainDb: 0, delaySeconds: 0 }],
    passOn: false,
  }
  const silences = (from: Pad, to: Pad): Tie => ({ id: id(`c ${from.id}`), kind: 'choke', from: from.id, to: [to.id], fadeSeconds: 0.01 })
  const [first] = tieConflicts(withTies(along, silences(hull, hatch)))
  expect(first).toMatchObject({ wins: 'struckAlong', pad: hull, other: hatch })
  expect(sounding(withTies(along, silences(hull, hatch)), [[0, hull]], 0.5)).toEqual(['Hull', 'Hatch'])
  const [second] = tieConflicts(withTies(along, silences(hatch, hull)))
  expect(second!.words).toContain('Hatch wins, and Hull stops')
  expect(sounding(withTies(along, silences(hatch, hull)), [[0, hull]], 0.5)).toEqual(['Hatch'])
  const group: Tie = { id: id('g'), kind: 'chokeGroup', name: 'Hats', pads: [hull.id, hatch.id], fadeSeconds: 0.01 }
  expect(tieConflicts(withTies(along, group))[0]!.wins).toBe('cutOff')
  expect(sounding(withTies(along, group), [[0, hull]], 0.5)).toEqual(['Hatch'])
  expect(tieConflicts(withTies(along, silences(hatch, bilge)))).toEqual([])
})

test('a circle is one that strikes go round; where a strike is not passed on there is none', () => {
  const along = (from: Pad, to: Pad, passOn: boolean): Tie => ({ id: id(`a ${from.id}`), kind: 'alsoStrike', from: from.id, to: [{ pad: to.id, chance: 1, gainDb: 0, delaySeconds: 0 }], passOn }) // prettier-ignore
  const round = withTies(along(hull, hatch, true), along(hatch, bilge, true), along(bilge, hull, true), along(oar, hull, true))
  expect(circlesOf(round)).toHaveLength(1)
  expect(new Set(circlesOf(round)[0])).toEqual(new Set([hull.id, hatch.id, bilge.id]))
  expect(sounding(round, [[0, oar]], 0.1)).toEqual(['Hull', 'Hatch', 'Bilge', 'Oar'])
  expect(circlesOf(withTies(along(hull, hatch, false), along(hatch, hull, false)))).toEqual([])
  expect(circlesOf(withTies(along(hull, hatch, true), along(hatch, hull, false)))).toHaveLength(1)
})

test('limits are asked in the order that is said: own, group, shared, kit', () => {
  const group: Tie = { id: id('g'), kind: 'chokeGroup', name: 'Hats', pads: [hull.id], fadeSeconds: 0.01, maxStrikes: 3 }
  const shared: Tie = { id: id('l'), kind: 'limit', name: 'Deck', pads: [hull.id, hatch.id, bilge.id], maxStrikes: 2 }
  const kit = { ...withTies(group, shared), maxStrikes: 5 }
  expect(limitWords(kit, hull.id)).toMatch(/its own \(8\), its group’s \(Hats: 3\), the one it shares \(Deck: 2\) and the kit’s \(5\)/)
  expect(limitWords(plain, keel.id)).toMatch(/its own \(8\) and the kit’s \(64\)\. Where one is full/)
  // Two share: the third strike stops the oldest of them, and a pad beside them is not touched.
  expect(sounding(kit, [[0, hull], [0.1, oar], [0.2, hatch], [0.3, bilge]], 0.5)).toEqual(['Hatch', 'Bilge', 'Oar']) // prettier-ignore
  const silencer = {
    ...kit,
    pads: kit.pads.map((pad) => (pad === hull ? { ...pad, own: { ...pad.own, mode: 'silencer' as const } } : pad)),
  }
  expect(limitWords(silencer, hull.id)).toMatch(/^A silencer sounds nothing/)
})

test('the sentence of each tie is what the model plays', () => {
  const itself: Tie = { id: id('c'), kind: 'choke', from: hull.id, to: [hull.id, oar.id], fadeSeconds: 1.5, on: 'letGo' }
  expect(tieWords(withTies(itself), itself)).toBe('Letting go of Hull silences its own earlier strikes and Oar within 1.5 s.')
  const turns: Tie = { id: id('t'), kind: 'takeTurns', pads: [hull.id, hatch.id], pick: 'cycle' }
  expect(tieWords(withTies(turns), turns)).toBe('A strike on any of Hull and Hatch sounds the next of them, the first one first.')
  expect([0.05, 0.15].map((at) => sounding(withTies(turns), [[0, hatch], [0.1, hatch]], at))).toEqual([['Hull'], ['Hull', 'Hatch']]) // prettier-ignore
  const later: Tie = { id: id('a'), kind: 'alsoStrike', from: hull.id, to: [{ pad: oar.id, chance: 1, gainDb: -6, delaySeconds: 0.02 }], passOn: false } // prettier-ignore
  expect(tieWords(withTies(later), later)).toBe('A strike on Hull strikes Oar (-6 dB, 20 ms later) along; it is not passed on.')
  const opens: Tie = { id: id('o'), kind: 'openings', controller: 4, steps: [{ pad: hatch.id, from: 60 }, { pad: hull.id, from: 0 }], chokeAt: 3 } // prettier-ignore
  expect(tieWords(withTies(opens), opens)).toBe('Controller 4 opens Hull from 0 and Hatch from 60; at 3 or below, all but the one it has come to are silenced.') // prettier-ignore
})
