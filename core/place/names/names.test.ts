import { planByNames } from '../name-plan'
import { laysRight } from '../testing/judge-names'
import { isUnseen, nameKinds, nameSet } from '../testing/name-sets'
import type { SetOptions } from '../testing/name-sets'
import { alignNames } from './align'
import { readNames } from './read'
import { tokensOf, tokensOfFile } from './tokens'

const SETS = 6

function shareRight(kinds: readonly string[], options: SetOptions, from = 1): number {
  let right = 0
  for (const kind of kinds)
    for (let seed = from; seed < from + SETS; seed++) {
      const set = nameSet(kind, seed, options)
      const files = set.files.map(({ file }) => file)
      if (laysRight(set, planByNames(files, readNames(files)))) right++
    }
  return right / (SETS * kinds.length)
}

test('sets named in eight tongues and many manners, by people who never saw our lists, lie right', () => {
  expect(shareRight(nameKinds.filter((kind) => !isUnseen(kind)), {})).toBeGreaterThanOrEqual(0.97) // prettier-ignore
  expect(shareRight(nameKinds.filter(isUnseen), {}, 100)).toBeGreaterThanOrEqual(0.97)
})

test('words are not what it goes by: with random letters for all of them as many lie right', () => {
  const plain = shareRight(nameKinds, {}, 200)
  expect(shareRight(nameKinds, { scrambled: true }, 200)).toBeGreaterThanOrEqual(plain - 0.05)
})

test('names are parted at separators and where letters, digits and cases meet, in any script', () => {
  const texts = (name: string) => tokensOf(name, true).map(({ text }) => text)
  expect(texts('RuderHolzNah_v03-2.wav')).toEqual(['Ruder', 'Holz', 'Nah', 'v', '03', '2'])
  expect(texts('бочка ТИХО2.flac')).toEqual(['бочка', 'ТИХО', '2'])
  expect(texts('樽_弱_01.wav')).toEqual(['樽', '弱', '01'])
  expect(tokensOfFile({ folder: 'Raum', name: 'Fass F#2 A.aiff' }, true).map(({ text }) => text)).toEqual(['Raum', 'Fass', 'F#2', 'A'])
})

test('names of unlike numbers of parts are laid where their texts agree', () => {
  const names = ['oar low soft 1', 'oar low hard 2', 'oar high soft 2', 'keel soft 1', 'keel hard 3']
  const columns = alignNames(names.map((name) => tokensOf(name, true)))
  const at = (text: string) => columns.findIndex(({ tokens }) => tokens.some((token) => token?.text === text))
  expect(at('soft')).toBe(at('hard'))
  expect(columns.map(({ kind }) => kind)).toEqual(['word', 'word', 'word', 'number'])
  expect(columns[at('soft')].tokens.every(Boolean)).toBe(true)
})

test('folders are columns like others, and the one folder of a set is no part of its name', () => {
  const files = ['quay', 'mast'].flatMap((folder) =>
    [1, 2, 3].map((take) => ({ folder, name: `cask ${take}.wav`, frames: 9000 + 700 * take })),
  )
  const [pad] = planByNames(files, readNames(files)).pads
  expect([pad.name, pad.microphones, pad.bands.map(({ turns }) => turns.length)]).toEqual(['Cask', ['mast', 'quay'], [3]])
  const alone = files.slice(0, 3)
  expect(planByNames(alone, readNames(alone)).pads.map(({ name }) => name)).toEqual(['Cask'])
})
