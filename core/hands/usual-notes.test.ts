import fc from 'fast-check'

import { keyOfPlace, KEY_ROWS, movedFirst, USUAL_KEYS, usualNotes, withKey } from '.'
import { broadFamily, createKit, createPad, families } from '../kit'
import type { Kit } from '../kit'
import { testIds } from '../kit/testing'

const makeId = testIds(11)
const kitOf = (...pads: { name: string; family: (typeof families)[number]; rootNote?: number; notes?: number[] }[]): Kit => ({
  ...createKit(makeId, 'Notes'),
  pads: pads.map(({ notes = [], ...own }) => ({ ...createPad(makeId, own), notes })),
})
const notesOf = (kit: Kit) => {
  const { notes } = usualNotes(kit)
  return kit.pads.map(({ id }) => notes.find(({ padId }) => padId === id)?.note)
}

test('families stand where the percussion map has them, and names choose among them', () => {
  const kit = kitOf(
    { name: 'Hull thump', family: 'kick' },
    { name: 'Tarp slap', family: 'snare' },
    { name: 'Mast stick', family: 'snare' },
    { name: 'Hatch tick', family: 'hat' },
    { name: 'Hatch open', family: 'hat' },
    { name: 'Hatch foot', family: 'hat' },
    { name: 'Chain drop', family: 'cymbal' },
    { name: 'Two hands', family: 'clap' },
  )
  expect(notesOf(kit)).toEqual([36, 38, 37, 42, 46, 44, 49, 39])
})

test('a kind stands where the map has it, whatever its name says, and the rest of its family beside it', () => {
  const kit = kitOf(
    { name: 'Hatch', family: 'hat' },
    { name: 'Open sea', family: 'closedHat' },
    { name: 'Hatch two', family: 'openHat' },
    { name: 'Chain', family: 'cymbal' },
    { name: 'Anchor', family: 'ride' },
    { name: 'Wake', family: 'splash' },
    { name: 'Keel', family: 'crash' },
    { name: 'Barrel', family: 'highTom' },
    { name: 'Tank', family: 'lowTom' },
    { name: 'Drum', family: 'tom' },
  )
  expect(notesOf(kit).slice(3)).toEqual([57, 51, 55, 49, 48, 41, 47])
  expect(notesOf(kit).slice(1, 3)).toEqual([42, 46])
})

test('toms rise by their roots where all are known, as far from each other as there is room', () => {
  const tom = (name: string, rootNote?: number) => ({ name, family: 'tom' as const, ...(rootNote === undefined ? {} : { rootNote }) })
  expect(notesOf(kitOf(tom('High', 60), tom('Low', 40), tom('Middle', 50)))).toEqual([50, 41, 47])
  expect(notesOf(kitOf(tom('One'), tom('Two', 30)))).toEqual([41, 50])
})

test('any kit: nobody shares a note, and a pad that found its family full says who has it', () => {
  const pad = fc.record({ name: fc.constantFrom('A', 'open', 'ride', 'stick', 'foot'), family: fc.constantFrom(...families) })
  fc.assert(
    fc.property(fc.array(pad, { maxLength: 128 }), (pads) => {
      const kit = kitOf(...pads)
      const { notes, crowded } = usualNotes(kit)
      expect(new Set(notes.map(({ note }) => note)).size).toBe(notes.length)
      expect(notes.length).toBe(pads.length)
      for (const { padId, by } of crowded) {
        const familyOf = (id: string) => kit.pads.find((one) => one.id === id)!.own.family ?? 'other'
        expect(by.length).toBeGreaterThan(0)
        expect(by.every((id) => broadFamily(familyOf(id)) === broadFamily(familyOf(padId)))).toBe(true)
      }
    }),
  )
})

test('pads that answered several notes are named, since they keep one', () => {
  const kit = kitOf({ name: 'Bell', family: 'bell', notes: [60, 61, 62] }, { name: 'Oar', family: 'wood', notes: [70] })
  expect(usualNotes(kit).fewer).toEqual([kit.pads[0]!.id])
  expect(usualNotes(kitOf()).notes).toEqual([])
})

test('keys: each pad has one, rows move by columns and stay within the kit', () => {
  expect([keyOfPlace(USUAL_KEYS, 0), keyOfPlace(USUAL_KEYS, 9), keyOfPlace(USUAL_KEYS, 27), keyOfPlace(USUAL_KEYS, 28)]).toEqual(['KeyZ', 'KeyA', 'KeyP', undefined]) // prettier-ignore
  expect(keyOfPlace(USUAL_KEYS, 28, 4)).toBe('KeyU')
  const code = fc.constantFrom(...KEY_ROWS.flat())
  const does = fc.option(fc.oneof(fc.nat(30), fc.constantFrom('rowBefore' as const, 'rowAfter' as const)), { nil: undefined })
  fc.assert(
    fc.property(fc.array(fc.tuple(code, does), { maxLength: 40 }), (changes) => {
      const map = changes.reduce((all, [own, what]) => withKey(all, own, what), USUAL_KEYS)
      expect(new Set(Object.values(map)).size).toBe(Object.values(map).length)
      const [last] = changes.slice(-1)
      if (last) expect(map[last[0]]).toBe(last[1])
    }),
  )
  expect([movedFirst(0, -1, 4, 40), movedFirst(0, 1, 4, 40), movedFirst(36, 1, 4, 40), movedFirst(4, 1, 4, 6), movedFirst(0, 1, 4, 0)]).toEqual([0, 4, 36, 4, 0]) // prettier-ignore
})
