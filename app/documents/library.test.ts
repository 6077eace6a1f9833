import { seeded } from '@heliaster/core/kit/testing'

import { deleteSounds, editSounds, library, redoLibrary, undoLibrary } from './library'

/** A plain model of the list: which sounds are on it, and what each is called. */
const mockNames: Record<string, string> = {}
const mockHidden = new Set<string>()
jest.mock('./index', () => ({
  sources: {
    store: {
      getState: () => ({
        entries: Object.fromEntries(
          Object.keys(mockNames)
            .filter((id) => !mockHidden.has(id))
            .map((id) => [id, {}]),
        ),
      }),
    },
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
    },
    bringBackMany: async (ids: string[]) => ids.forEach((id) => mockHidden.delete(id)),
  },
  kits: { editMany: () => [] },
  keptSteps: { library: () => ({ past: [], future: [] }) },
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
        const listed = now()
        if (what < 0.75) editSounds(renamed(pick(), `${seed} ${step}`))
        else await deleteSounds([...new Set([pick(), pick()])])
        const isStep = now() !== listed
        expect(library.getState().past.length).toBe(before + (isStep ? 1 : 0))
        if (isStep) {
          states.splice(++at, Infinity, now())
          expect(library.getState().future).toEqual([])
        }
      }
      expect(now()).toBe(states[at])
    }
    library.setState({ past: [], future: [] })
  }
})

test('a hundred steps are kept, and more undoing than there is to undo does nothing', async () => {
  for (let i = 0; i < 130; i++) editSounds(renamed('a', `name ${i}`))
  expect(library.getState().past).toHaveLength(100)
  for (let i = 0; i < 120; i++) await undoLibrary()
  expect([mockNames.a, library.getState().past.length]).toEqual(['name 29', 0])
  for (let i = 0; i < 120; i++) await redoLibrary()
  expect([mockNames.a, library.getState().future.length]).toEqual(['name 129', 0])
})
