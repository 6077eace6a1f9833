import { readNames, pairsToHear } from './read'
import { planByNames } from '../name-plan'

/** Words that nobody knows, lengths that tell nothing, and nothing else known. */
const files = ['blurf', 'skonk'].flatMap((first) => ['dralt', 'mip'].flatMap((second) => [1, 2, 3, 4, 5].map((take) => ({ name: `gribble ${first} ${second} ${take}.wav`, frames: 48000 })))) // prettier-ignore
const wordOf = (file: number, place: number) => files[file].name.split(' ')[place]
const takeOf = (file: number) => wordOf(file, 3)

test.each([1, 2])('what sounds like the same strike is a microphone, whichever word of the name tells it (%s)', (place) => {
  const other = 3 - place
  // Files are alike where all but the microphone agrees; a little of everything is alike.
  const likeness = (a: number, b: number) => (wordOf(a, other) === wordOf(b, other) && takeOf(a) === takeOf(b) ? 0.8 : 0.55) + 0.01 * ((a * 7 + b * 3) % 5) // prettier-ignore
  expect(pairsToHear(files).length).toBeGreaterThan(10)
  const read = readNames(files, {}, likeness)
  const microphone = read.slots.find(({ role }) => role === 'microphone')
  expect(microphone?.texts).toEqual(place === 1 ? ['blurf', 'skonk'] : ['dralt', 'mip'])
  for (const { microphones } of planByNames(files, read).pads) expect(microphones).toHaveLength(2)
})

test('where lengths tell which are the same strike, nothing has to be listened to', () => {
  expect(pairsToHear(files.map((file, i) => ({ ...file, frames: 9000 + 311 * (i % 5) + (i < 10 ? 0 : 20_000) + i })))).toEqual([])
})

test('where each drum has a length of its own, lengths tell no strikes, and files are listened to', () => {
  expect(pairsToHear(files.map((file, i) => ({ ...file, frames: i < 10 ? 30_000 : 41_000 }))).length).toBeGreaterThan(10)
})

test('where drums are as long as each other, being as long makes no microphones', () => {
  const words = ['keel hard 1', 'keel soft 1', 'oar hard 1', 'oar soft 1', 'bell']
  const cut = words.map((word, i) => ({ name: `${word}.wav`, frames: word === 'bell' ? 4000 : 14_400, loudnessDb: [-9, -20, -12, -24, -15][i]!, centreHz: [90, 80, 900, 800, 5000][i]! })) // prettier-ignore
  expect(readNames(cut).slots.map(({ role }) => role)).toEqual(['drum', 'level', 'take'])
})
