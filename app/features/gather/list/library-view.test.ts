import { clipOfSource, createIds, createSource } from '@heliaster/core/kit'
import type { AudioHash, Source } from '@heliaster/core/kit'

import { aKitOf, aPad } from '../../../testing/a-kit'
import { changeView, isNarrowed, kitsUsing, libraryView, noteHeard, showAll, shownSounds, tagsOf, usersInWords } from './library-view'

const makeId = createIds(() => Math.random())
const sound = (name: string, given: Partial<Source> = {}, seconds = 1) =>
  createSource(
    makeId,
    'a'.repeat(64) as AudioHash,
    { name: `${name}.wav`, sampleRateHz: 1000, frames: seconds * 1000, channels: 1 },
    name,
    given,
  )

test('sounds are found by every word, narrowed, and put in order; what is passed goes last', () => {
  const all = [
    sound('oar 10', { family: 'tom', measured: { peakDb: -3, loudnessDb: -20 } }),
    sound('oar 2', { family: 'tom', verdict: 'pass', measured: { peakDb: -3, loudnessDb: -10 } }),
    sound('oar 1', { family: 'wood', favourite: true, tags: ['pier'], measured: { peakDb: -3, loudnessDb: -15 } }, 2),
    sound('Recording 1', { origin: 'recorded', addedAt: 9 }, 60),
  ]
  const view = { ...libraryView.getState() }
  const names = (changes: object) => shownSounds(all, { ...view, ...changes }, { [all[0].id]: 5 }).map((source) => source.name)
  expect(names({})).toEqual(['Recording 1', 'oar 1', 'oar 10', 'oar 2'])
  expect(names({ words: 'oar pier' })).toEqual(['oar 1'])
  expect(names({ sort: 'name', isReversed: true })).toEqual(['Recording 1', 'oar 10', 'oar 1', 'oar 2'])
  expect(names({ sort: 'loudness', only: 'hits' })).toEqual(['oar 1', 'oar 10', 'oar 2'])
  expect(names({ sort: 'length' })[0]).toBe('Recording 1')
  expect(names({ sort: 'heard' })[0]).toBe('oar 10')
  expect(names({ family: 'tom', only: 'passed' })).toEqual(['oar 2'])
  expect(names({ tag: 'pier' })).toEqual(['oar 1'])
  expect(names({ only: 'favourites' })).toEqual(['oar 1'])
})

test('kits that use a sound are named with how many clips of it they play', () => {
  const source = sound('oar')
  const pads = [aPad(2), aPad(1)].map((pad) => ({ ...pad, bands: pad.bands.map((band) => ({ ...band, turns: band.turns.map((turn) => ({ ...turn, clips: { [pad.rays[0].id]: clipOfSource(source) } })) })) })) // prettier-ignore
  const kits = [aKitOf(...pads), { ...aKitOf(pads[1]), name: 'Ebb' }, aKitOf(aPad(3))]
  expect(kitsUsing(kits, [source])).toEqual([{ name: 'K', clips: 3 }, { name: 'Ebb', clips: 1 }]) // prettier-ignore
  expect(usersInWords([])).toBe('')
  const users = [1, 2, 1].map((clips, i) => ({ name: 'ABC'[i], clips }))
  expect(usersInWords(users.slice(0, 1))).toBe('“A” (1 clip)')
  expect(usersInWords(users)).toBe('“A” (1 clip), “B” (2 clips) and “C” (1 clip)')
  expect(usersInWords([...users, ...users])).toMatch(/“B” \(2 clips\) and “C” \(1 clip\)$/)
  expect(usersInWords([...users, ...users, ...users])).toMatch(/“B” \(2 clips\) and 4 more kits$/)
})

test('a list begins with all that the kit uses, the newest first, heard at its own level', () => {
  expect(libraryView.getState()).toEqual({ words: '', scope: 'kit', sort: 'added', isReversed: false, only: 'all', hearsOnSelect: true, hearsFirst: false, hearDb: 0 }) // prettier-ignore
  const all = [3, 9, 5].map((addedAt) => sound(`at ${addedAt}`, { addedAt }))
  expect(shownSounds(all, libraryView.getState()).map(({ addedAt }) => addedAt)).toEqual([9, 5, 3])
})

test('what narrows the list is let go of at once, and what it is sorted by stays', () => {
  changeView({ words: 'oar', only: 'kept', family: 'tom', tag: 'pier', sort: 'length' })
  expect(isNarrowed(libraryView.getState())).toBe(true)
  showAll()
  expect(libraryView.getState()).toMatchObject({ words: '', scope: 'all', only: 'all', family: undefined, tag: undefined, sort: 'length' })
  expect(isNarrowed(libraryView.getState())).toBe(false)
  for (const one of [{ only: 'kept' as const }, { family: 'tom' as const }, { tag: 'pier' }]) expect(isNarrowed({ ...libraryView.getState(), ...one })).toBe(true) // prettier-ignore
})

test('sounds are remembered as they were heard, the last 200', () => {
  const now = jest.spyOn(Date, 'now')
  const all = Array.from({ length: 202 }, (_, i) => sound(`s ${i}`))
  all.forEach(({ id }, i) => {
    now.mockReturnValue(1000 + i)
    noteHeard(id)
  })
  now.mockRestore()
  const order = shownSounds(all, { ...libraryView.getState(), words: '', sort: 'heard' }).map(({ name }) => name)
  expect(order.slice(0, 3)).toEqual(['s 201', 's 200', 's 199'])
  const kept = JSON.parse(localStorage.getItem('heliaster-heard')!) as { heard: Record<string, number> }
  expect(Object.values(kept.heard).sort((a, b) => a - b)).toEqual(Array.from({ length: 200 }, (_, i) => 1002 + i))
})

test('longer than five seconds is a recording, and so is what was recorded here; tags are listed once, in order', () => {
  const all = [sound('a', {}, 5), sound('b', {}, 6), sound('c', { origin: 'recorded', tags: ['pier', 'mast 10'] }, 1), sound('d', { tags: ['mast 2', 'pier'], verdict: 'keep' }, 1)] // prettier-ignore
  const names = (only: 'recordings' | 'hits' | 'kept') => shownSounds(all, { ...libraryView.getState(), sort: 'name', only }).map(({ name }) => name).join('') // prettier-ignore
  expect([names('recordings'), names('hits'), names('kept')]).toEqual(['bc', 'ad', 'd'])
  expect(tagsOf(all)).toEqual(['mast 2', 'mast 10', 'pier'])
})
