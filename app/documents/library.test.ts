import { seeded } from '@heliaster/core/kit/testing'

import { deleteSounds, editSounds, library, redoLibrary, rememberStep, undoLibrary } from './library'

/** A plain model of the list: which sounds are on it, and what each is called. */
const mockNames: Record<string, string> = {}
const mockHidden = new Set<string>()
jest.mock('./index', () => ({
  sources: {
    editMany: (changes: { id: string; edits: { name: string }[] }[]) =>
      changes.flatMap(({ id, edits: [{ name }] }) => {
        if (mockNames[id] === name) return []
        const before = mockNames[id]
        mockNames[id] = name
        return [{ id, edits: [{ name: before }] }]
      }),
    hideMany: async (ids: string[]) => {
      const hidden = ids.filter((id) => !mockHidden.has(id))
      hidden.forEach((id) => mockHidden.add(id))
      return async () => hidden.forEach((id) => mockHidden.delete(id))
    },
  },
}))

const renamed = (id: string, name: string) => [{ id, edits: [{ name }] }] as never
const now = () => JSON.stringify([mockNames, [...mockHidden].sort()])

beforeEach(() => {
  library.setState({ past: [], future: [] })
  for (const id of ['a', 'b', 'c', 'd']) mockNames[id] = id
  mockHidden.clear()
})

test('a change that changes nothing leaves no step', () => {
  editSounds(renamed('a', 'a'))
  expect(library.getState().past).toEqual([])
})

test('whatever was done, undone and done again, each step leads back to where the list was and forth again', async () => {
  for (let seed = 1; seed <= 40; seed++) {
    const chance = seeded(seed)
    const pick = () => 'abcd'[Math.floor(chance() * 4)]
    const states = [now()]
    let at = 0
    for (let step = 0; step < 30; step++) {
      const what = chance()
      if (what < 0.3 && at > 0) {
        await undoLibrary()
        at--
      } else if (what < 0.5 && library.getState().future.length > 0) {
        await redoLibrary()
        at++
      } else {
        const before = library.getState().past.length
        if (what < 0.75) editSounds(renamed(pick(), `${seed} ${step}`))
        else await deleteSounds([...new Set([pick(), pick()])])
        expect(library.getState().past.length).toBe(before + 1)
        states.splice(++at, Infinity, now())
        expect(library.getState().future).toEqual([])
      }
      expect(now()).toBe(states[at])
    }
    library.setState({ past: [], future: [] })
  }
})

test('a hundred steps are kept, and more undoing than there is to undo does nothing', async () => {
  const undo = jest.fn()
  for (let i = 0; i < 130; i++) rememberStep({ undo, redo: () => undefined })
  expect(library.getState().past).toHaveLength(100)
  for (let i = 0; i < 120; i++) await undoLibrary()
  expect(undo).toHaveBeenCalledTimes(100)
  for (let i = 0; i < 120; i++) await redoLibrary()
  expect(library.getState()).toMatchObject({ future: [] })
})
