import { createKit, createPad } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'

import { clashesOf, sameName } from './clashes'

const makeId = testIds()
const kit = { ...createKit(makeId, 'Low Tide'), pads: [createPad(makeId, { name: 'Oar' }, 36)] }
const withPad = (name: string, note: number) => ({ ...kit, pads: [...kit.pads, createPad(makeId, { name }, note)] })

test('two pads that came to answer one note, or to have one name, are said; what was so before is not', () => {
  expect(clashesOf(kit, withPad('Bell', 36))).toMatch(/^Oar and Bell both answer note 36/)
  expect(clashesOf(kit, withPad('Oar', 40))).toMatch(/^Two pads are called Oar now/)
  expect(clashesOf(kit, withPad('Bell', 40))).toBeUndefined()
  const shared = withPad('Bell', 36)
  expect(clashesOf(shared, shared)).toBeUndefined()
})

test('a kit of a name that is here already is said', () => {
  expect(sameName([kit], { ...kit, id: makeId('kit') })).toMatch(/^A kit called “Low Tide” was made elsewhere as well/)
  expect(sameName([kit], kit)).toBeUndefined()
})
