import { PORTRAIT_LENGTH } from '../../alike/portrait'
import { planByNames } from '../name-plan'
import { laysRight } from '../testing/judge-names'
import { isUnseen, nameKinds, nameSet } from '../testing/name-sets'
import type { SetOptions } from '../testing/name-sets'
import { alignNames } from './align'
import { readNames } from './read'
import { strengthsOf } from './strengths'
import { tokensOf, tokensOfFile } from './tokens'
import type { NamedFile } from './types'

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

/** A file by its path; what is heard of it goes by its words: each thing has its own length and brightness, hard is louder than soft. */
function heard(path: string, i: number) {
  const [name, folder] = path.split('/').reverse()
  const thing = ['keel', 'plank', 'bell', 'low', 'high', 'open', 'shut'].reduce((sum, word, k) => sum + (path.toLowerCase().includes(word) ? 1 << k : 0), 0) // prettier-ignore
  const level = /hard|v2/i.test(path) ? -8 : /soft|v1/i.test(path) ? -17 : -12
  return { name: `${name}.wav`, ...(folder ? { folder } : {}), loudnessDb: level + (i % 3) / 4, frames: 4000 + 9000 * thing + 211 * i, centreHz: 90 * 2.3 ** (thing % 7) } // prettier-ignore
}

/** Pads as names make them: how each is called, and how many turns its bands have. */
function laid(paths: readonly string[]): string {
  const files = paths.map(heard)
  const { pads, unplaced } = planByNames(files, readNames(files))
  const told = pads.map(({ name, bands, microphones }) => `${name} ${bands.map(({ turns }) => turns.length).join('/')}${microphones.length > 1 ? ` of ${microphones.length}` : ''}`) // prettier-ignore
  return [...told, ...(unplaced.length > 0 ? [`${unplaced.length} left`] : [])].join(', ')
}
const each = (thing: string, words: readonly string[]) => words.map((word) => `${thing} ${word}`.trim())

test.each([
  [[...each('Keel', ['hard 1', 'hard 2', 'soft 1', 'soft 2']), ...each('Plank', ['hard 1', 'soft 1']), 'Bell'], 'Bell 1, Keel 2/2, Plank 1/1'],
  [[...each('keel', ['soft 1', 'soft 2', 'hard 1', 'hard 2']), ...each('bell', ['shut 1', 'shut 2', 'open 1', 'open 2']), 'oar'], 'Bell open 2, Bell shut 2, Keel 2/2, Oar 1'],
  [['Hard keel', 'Soft keel', 'Hard plank', 'Soft plank', 'Bell'], 'Bell 1, Keel 1/1, Plank 1/1'],
  [['keel_v1_rr1', 'keel_v1_rr2', 'keel_v2_rr1', 'keel_v2_rr2', 'plank_v1_rr1', 'plank_v2_rr1', 'bell_rr1', 'bell_rr2', 'oar'], 'Bell 2, Keel 2/2, Oar 1, Plank 1/1'],
  [['Keel/Keel 1', 'Keel/Keel 2', 'Planks/Plank soft', 'Planks/Plank hard', 'Bells/Bell shut', 'Bells/Bell open'], 'Bell open 1, Bell shut 1, Keel 2, Plank 1/1'],
  [['Red buoy/Red buoy 1', 'Red buoy/Red buoy 2', 'Keel/Keel soft', 'Keel/Keel hard', 'Oar/Oar'], 'Keel 1/1, Oar 1, Red buoy 2'],
  [['keel', 'keel 2', 'keel 3', 'plank', 'plank 2'], 'Keel 3, Plank 2'],
  [['keel', 'keel (1)', 'keel (2)', 'plank', 'plank (1)', 'bell'], 'Bell 1, Keel 3, Plank 2'],
  [['keel_v1_r1', 'keel_v2_r1', 'plank_v1_r1', 'plank_v2_r1', 'bell_v1_r1'], 'Bell 1, Keel 1/1, Plank 1/1'],
  [[...each('red keel', ['soft', 'hard']), ...each('plank', ['soft', 'hard']), 'bell 1', 'bell 2'], 'Bell 2, Plank 1/1, Red keel 1/1'],
])('names that say only what there is to say lie as their things do: %#', (paths, pads) => {
  expect(laid(paths)).toBe(pads)
  expect(laid([...paths].reverse())).toBe(pads)
}) // prettier-ignore

test('words are strengths where what differs in them alone differs in loudness alone', () => {
  const told = (one: Partial<NamedFile>, other: Partial<NamedFile>, words = ['suave', 'recio']) =>
    strengthsOf([{ name: 'a', loudnessDb: -20, ...one }, { name: 'b', loudnessDb: -9, ...other }], ['keel', 'keel'], words).get('keel')
  expect(told({ centreHz: 300, frames: 9000 }, { centreHz: 340, frames: 9900 })).toBe(true)
  expect(told({}, {})).toBe(true) // nothing speaks against it
  expect(told({ centreHz: 300 }, { centreHz: 900 })).toBe(false)
  expect(told({ frames: 3000 }, { frames: 9000 })).toBe(false)
  expect(told({ pitchHz: 100 }, { pitchHz: 112 })).toBe(false)
  expect(told({}, { loudnessDb: -19 })).toBe(false)
  expect(told({ loudnessDb: undefined }, {}, ['soft', 'hard'])).toBe(false)
}) // prettier-ignore

test('where a strength was not heard, known words put it in order; one that stands alone has none', () => {
  const known = { soft: undefined, medium: -15, hard: -8 } as const
  const files = [...(['keel', 'oar'] as const).flatMap((drum) => (['hard', 'soft', 'medium'] as const).map((word) => ({ name: `${drum} ${word}.wav`, loudnessDb: known[word] }))), { name: 'bell loud.wav', loudnessDb: -20 }] // prettier-ignore
  const { facts } = readNames(files)
  const levelOf = (name: string) => facts[files.findIndex((file) => file.name === `${name}.wav`)]!.level!
  expect(levelOf('keel soft')).toBeLessThan(levelOf('keel medium'))
  expect(levelOf('keel medium')).toBeLessThan(levelOf('keel hard'))
})

/** A portrait of which all bands lie so high: two differ by half of what they lie apart. */
const portrait = (...db: number[]) => Uint8Array.from({ length: PORTRAIT_LENGTH }, (_, i) => db[i % db.length]!)

test.each([
  ['sound unlike each other', (take: number) => ({ portrait: portrait(take === 1 ? 40 : 5, take === 1 ? 5 : 40) }), 'Keel 1, Keel 1, Oar 1, Oar 1'],
  ['sound alike', (take: number) => ({ portrait: portrait(40, 5 + take) }), 'Keel 2, Oar 2'],
  ['are tuned apart', (take: number) => ({ pitchHz: 90 * 1.12 ** take }), 'Keel 1, Keel 1, Oar 1, Oar 1'],
  ['are tuned alike', (take: number) => ({ pitchHz: 90 + take / 4 }), 'Keel 2, Oar 2'],
  ['are not known', () => ({}), 'Keel 2, Oar 2'],
] as const)('what is counted lies on pads of its own where drums of one word %s, else as turns', (_, heardOf, pads) => {
  const files = ['keel', 'oar'].flatMap((drum, d) => [1, 2].map((take) => ({ name: `${drum} ${take}.wav`, loudnessDb: -20 + take / 8, frames: 9000 + 5000 * d + 700 * take, ...heardOf(take) }))) // prettier-ignore
  const plan = planByNames(files, readNames(files))
  expect(plan.pads.map(({ name, bands }) => `${name.split(' ')[0]} ${bands.map(({ turns }) => turns.length).join('/')}`).join(', ')).toBe(pads)
}) // prettier-ignore

test('a few toms that are counted are toms, unless they are tuned alike or one was struck several times', () => {
  const toms = (more: (i: number) => object, count = 3) => [...Array.from({ length: count }, (_, i) => ({ name: `Tom${i + 1}.wav`, loudnessDb: -20, frames: 9000 + 900 * i, ...more(i) })), { name: 'Keel.wav', loudnessDb: -22, frames: 4000 }] // prettier-ignore
  const padsOf = (files: { name: string }[]) => planByNames(files, readNames(files)).pads.length
  expect([padsOf(toms(() => ({}))), padsOf(toms((i) => ({ pitchHz: 90 + i / 4 }))), padsOf(toms(() => ({}), 7))]).toEqual([4, 2, 2])
  expect(padsOf(toms((i) => ({ loudnessDb: -30 + 8 * i }), 4))).toBe(2) // softly to hard
  expect(padsOf([1, 2, 3].map((take) => ({ name: `tom_rr${take}.wav` })).concat({ name: 'keel_rr1.wav' }))).toBe(2)
  expect(padsOf([1, 2, 3].flatMap((take) => [1, 2].map((drum) => ({ name: `tom${drum} take${take}.wav` }))))).toBe(2)
})
