import fc from 'fast-check'

import { cellOfFile, namedAlike, rolesByExample } from './by-example'
import type { NamedFile, NameRoles } from './names/types'
import { looksLevelled } from './levelled'
import { cellsOfPlan, holesInWords, planByNames } from './name-plan'
import type { NamePlan } from './name-plan'
import { readNames } from './names/read'

const MICROPHONES = ['close', 'far', 'room']
const WORDS = ['softest', 'soft', 'medium', 'hard', 'hardest']
const MARKS = ['pp', 'p', 'mf', 'f', 'ff']
const RANGES = ['001-025', '026-050', '051-076', '077-101', '102-127']
const two = (n: number) => String(n).padStart(2, '0')

/** Ninety strikes: three microphones, five levels (0 is the softest), six takes. */
function ninety(
  name: (microphone: string, level: number, take: number) => string,
  more: (level: number, take: number) => Partial<NamedFile> = () => ({}),
) {
  return MICROPHONES.flatMap((microphone) =>
    [0, 1, 2, 3, 4].flatMap((level) =>
      [1, 2, 3, 4, 5, 6].map((take) => ({
        file: { name: `${name(microphone, level, take)}.wav`, ...more(level, take) },
        microphone,
        level,
        take,
      })),
    ),
  )
}

const loud = (level: number, take: number) => ({ loudnessDb: -40 + 8 * level + (take % 3) })
const long = (level: number, take: number) => ({ frames: 20000 + 1000 * level + 37 * take })

const MANNERS: Record<string, ReturnType<typeof ninety>> = {
  'with a note, levels and turns': ninety((mic, level, take) => `hull_thump_C2_${mic}_v${level + 1}_rr${take}`),
  'with velocity ranges and takes with zeros': ninety((mic, level, take) => `hull thump ${mic} ${RANGES[level]} take ${two(take)}`),
  'with words, the microphone first': ninety((mic, level, take) => `${mic.toUpperCase()} Hull thump ${WORDS[level]} ${take}`),
  'with level numbers, the microphone last': ninety((mic, level, take) => `thump-L${level + 1}-T${two(take)}-${mic}`),
  'with a note number and musical marks': ninety((mic, level, take) => `36_hull_${mic}_${MARKS[level]}_${take}`),
  'in camel case with very soft and very hard': ninety(
    (mic, level, take) =>
      `hullThump${mic[0].toUpperCase()}${mic.slice(1)}${['VerySoft', 'Soft', 'Medium', 'Hard', 'VeryHard'][level]}${two(take)}`,
  ),
  'with bare numbers that loudness tells apart': ninety((mic, level, take) => `hull ${mic} ${level + 1} ${two(take)}`, loud),
  'with bare numbers, takes first': ninety((mic, level, take) => `hull ${mic} ${two(take)} ${level + 1}`, loud),
  'with the loudest as level 1': ninety((mic, level, take) => `hull_${mic}_l${5 - level}_${take}`, loud),
  'with takes that count on through the levels': ninety((mic, level, take) => `hull_${mic}_dyn${level + 1}_${two(6 * level + take)}`),
  'with microphones of unknown names': ninety((mic, level, take) => `hull ${{ close: 'deck', far: 'mast', room: 'quay' }[mic]} v${level + 1} rr${take}`, long), // prettier-ignore
  'with a note number before velocity ranges': ninety((mic, level, take) => `Hull-36-${RANGES[level]}-${mic}-${take}`),
  'with takes before velocity ranges': ninety((mic, level, take) => `hull-${mic}-${take}-${RANGES[level]}`),
  'with letters for takes': ninety((mic, level, take) => `hull ${MARKS[level]} ${'abcdef'[take - 1]} ${mic}`),
  'with bare velocities and takes, nothing else known': ninety(
    (mic, level, take) => `hull_${mic}_${take}_${[25, 50, 76, 101, 127][level]}`,
  ),
  'with velocities and dashes': ninety((mic, level, take) => `hull-${mic}-vel${[25, 50, 76, 101, 127][level]}-${take}`),
}

/** Where each file lies: its microphone, band and turn. */
function placesOf(plan: NamePlan): Map<number, [string, number, number]> {
  const places = new Map<number, [string, number, number]>()
  for (const pad of plan.pads)
    pad.bands.forEach((band, b) => band.turns.forEach((turn, t) => turn.files.forEach((file, mic) => places.set(file, [mic, b, t]))))
  return places
}

const planOf = (files: readonly NamedFile[], roles?: NameRoles) => planByNames(files, readNames(files, roles))

test.each(Object.entries(MANNERS))('ninety files named %s find their places with no setting, in any order', (_, files) => {
  fc.assert(
    fc.property(fc.shuffledSubarray(files, { minLength: files.length }), (order) => {
      const read = readNames(order.map(({ file }) => file))
      expect(read.question).toBeUndefined()
      const plan = planByNames(order.map(({ file }) => file), read) // prettier-ignore
      expect([plan.pads.length, plan.unplaced, plan.pads[0].gaps]).toEqual([1, [], []])
      const [pad] = plan.pads
      expect([pad.microphones.length, pad.bands.map((band) => band.turns.length)]).toEqual([3, [6, 6, 6, 6, 6]])
      const places = placesOf(plan)
      const names = new Map<string, string>()
      order.forEach(({ microphone, level, take }, i) => {
        const [mic, band, turn] = places.get(i)!
        expect([band, turn]).toEqual([level, take - 1])
        expect(names.get(microphone) ?? mic).toBe(mic)
        names.set(microphone, mic)
      })
    }),
    { numRuns: 5 },
  )
})

const PLACES = [MICROPHONES, ['CLOSE', 'OH', 'ROOM'], ['Deck', 'Keel', 'Pier'], ['mic1', 'mic2', 'mic3']]
const LEVELS = [
  ...['v', 'vel', 'Vel0', 'L', 'layer', ''].map((word) => [1, 2, 3, 4, 5].map((n) => `${word}${n}`)),
  RANGES, ['1-25', '26-50', '51-76', '77-101', '102-127'], ['v025', 'v050', 'v075', 'v100', 'v127'], ['25', '50', '75', '100', '127'], WORDS, MARKS,
] // prettier-ignore
const TAKES = ['rr', 'RR0', 'take ', 't0', '', '0', '#', 'hit'].map((word) => (n: number) => `${word}${n}`)
const ORDERS = ['DMLT', 'MDLT', 'DLTM', 'DLMT', 'DTLM', 'DMTL']

test('whatever the words, marks, order and separators, ninety files lie right, or one question is asked', () => {
  const manner = fc.record({
    places: fc.constantFrom(...PLACES), levels: fc.constantFrom(...LEVELS), take: fc.constantFrom(...TAKES, (n: number) => 'abcdef'[n - 1], (n: number) => `(${n})`),
    order: fc.constantFrom(...ORDERS), separator: fc.constantFrom('_', '-', ' '), note: fc.constantFrom('', 'C1', '36', 'D#2'), isHeard: fc.boolean(),
  }) // prettier-ignore
  fc.assert(
    fc.property(manner, ({ places, levels, take: takeOf, order, separator, note, isHeard }) => {
      const strikes = ninety(
        (mic, level, take) => {
          const part: Record<string, string> = { D: note ? `Hull${separator}${note}` : 'Hull', M: places[MICROPHONES.indexOf(mic)], L: levels[level], T: takeOf(take) } // prettier-ignore
          return [...order].map((one) => part[one]).join(separator)
        },
        (level, take) => ({ ...long(level, take), ...(isHeard ? loud(level, take) : {}) }),
      )
      const files = strikes.map(({ file }) => file)
      const read = readNames(files)
      const found = placesOf(planByNames(files, read))
      const isRight = strikes.every(({ level, take }, i) => found.get(i)?.[1] === level && found.get(i)?.[2] === take - 1)
      const microphones = strikes.map(({ microphone }, i) => `${microphone} ${found.get(i)?.[0]}`)
      expect([(isRight && new Set(microphones).size === 3) || read.question !== undefined, files[7].name]).toEqual([true, files[7].name])
    }),
    { numRuns: 60 },
  )
})

test('names give their pad its note, its name and the edges of its bands', () => {
  const padOf = (manner: string) => planOf(MANNERS[manner].map(({ file }) => file)).pads[0]
  expect(padOf('with a note, levels and turns')).toMatchObject({ name: 'Hull thump', note: 36 })
  expect(padOf('with a note number and musical marks')).toMatchObject({ name: 'Hull', note: 36 })
  const edges = (manner: string) => padOf(manner).bands.map((band) => band.fromVelocity)
  expect(edges('with velocity ranges and takes with zeros')).toEqual([1, 26, 51, 77, 102])
  expect(edges('with velocities and dashes')).toEqual([1, 26, 51, 77, 102])
})

test('a missing file leaves its cell open and is pointed at; a doubled and a strange one find no place and say why', () => {
  const all = MANNERS['with a note, levels and turns'].map(({ file }) => file)
  const missing = all.filter(({ name }) => name !== 'hull_thump_C2_far_v3_rr2.wav')
  const plan = planOf(missing)
  expect(plan.pads[0].gaps).toEqual(['far, band 3, take 2'])
  expect(holesInWords(plan)).toBe('1 of 90 cells has no file: far.')
  const { rows, columns, filled } = cellsOfPlan(plan.pads[0])
  expect([rows.length, columns.length, filled.flat().filter((is) => !is).length]).toEqual([3, 30, 1])
  expect(holesInWords(planOf(all))).toBeUndefined()
  expect(plan.pads[0].bands[2].turns[1].files.size).toBe(2)
  const strange = planOf([...all, { name: 'hull_thump_C2_close_v1_rr01.wav' }, { name: 'hull_thump_C2_close_v2.wav' }, { name: 'hull_thump_C2_close_v1_rr2 copy.wav' }]) // prettier-ignore
  expect(strange.unplaced.map(({ file, reason }) => [file - 90, reason])).toEqual([
    [0, 'It would lie where “hull_thump_C2_close_v1_rr1.wav” lies.'],
    [1, 'Its name does not say which take it is, as the others of Hull thump do.'],
    [2, 'Its name has “copy”, which no other of Hull thump has.'],
  ])
})

test('what cannot be told is asked once, and the answer places all', () => {
  const bare = ninety((mic, level, take) => `hull ${mic} ${level + 1} ${two(take)}`).map(({ file }) => file)
  const read = readNames(bare)
  expect(read.question).toMatchObject({ texts: ['1', '2', '3', '4', '5'] })
  expect(read.question!.roles.slice(0, 2)).toEqual(['level', 'take'])
  const takes = read.slots.find(({ role }) => role === 'take')!.slot
  const turned = planOf(bare, { [read.question!.slot]: 'take', [takes]: 'level' })
  expect(turned.pads[0].bands.map((band) => band.turns.length)).toEqual([5, 5, 5, 5, 5, 5])
  expect(readNames(bare, { [read.question!.slot]: 'level' }).question).toBeUndefined()
  const words = ['deck', 'mast'].flatMap((word) => [1, 2, 3].map((take) => ({ name: `${word} rr${take}.wav` })))
  const asked = readNames(words)
  expect([asked.question?.roles.slice(0, 2), planByNames(words, asked).pads.length]).toEqual([['drum', 'microphone'], 2])
  expect(planOf(words, { [asked.question!.slot]: 'microphone' }).pads.map((pad) => pad.microphones)).toEqual([['deck', 'mast']])
  const rising = [1, 2, 3, 4, 5, 6].map((n) => ({ name: `slap ${n}.wav`, loudnessDb: -40 + 6 * n }))
  expect(readNames(rising).question?.roles).toEqual(expect.arrayContaining(['take', 'level']))
})

test('one file shown in its cell teaches what the parts of all names are, and the others follow', () => {
  // Bare numbers of unlike meaning, takes first, and nothing known of loudness: the reading that is taken first is wrong.
  const strikes = ninety((mic, level, take) => `hull ${mic} ${take} ${level + 1}`)
  const files = strikes.map(({ file }) => file)
  const shown = strikes.findIndex(({ microphone, level, take }) => microphone === 'far' && level === 3 && take === 2)
  expect(cellOfFile(planByNames(files, readNames(files)), shown)).not.toMatchObject({ band: 3, turn: 1 })
  const roles = rolesByExample(files, { file: shown, band: 3, turn: 1 })
  const plan = planByNames(files, readNames(files, roles))
  const right = strikes.map(({ microphone, level, take }) => ({ pad: 0, microphone, band: level, turn: take - 1 }))
  expect(strikes.map((_, file) => cellOfFile(plan, file))).toEqual(right.map((cell, file) => ({ ...cell, file })))
  expect(rolesByExample(files, { file: shown, band: 40, turn: 1 })).toBeUndefined()
  const library = [...files.map(({ name }) => name), 'tarp slap.wav', 'keel far 2 3.wav', 'hull.wav']
  expect(namedAlike(library, shown)).toEqual(files.map((_, file) => file))
})

test('files that were all brought to one level are read by their numbers as they stand, whatever hairs their loudness splits', () => {
  const files = [1, 2, 3].flatMap((take) =>
    [1, 2].map((level) => ({ name: `gunwale ${take} ${level}`, frames: 16800, loudnessDb: -18.4 - 0.01 * level })),
  )
  const shown = rolesByExample(files, { file: 1, band: 1 })
  const plan = planByNames(files, readNames(files, shown))
  expect(plan.pads.map(({ bands }) => bands.map(({ turns }) => turns.length))).toEqual([[3, 3]])
  expect(cellOfFile(plan, 1)).toMatchObject({ band: 1, turn: 0 })
})

test('a folder of several drums becomes a pad for each, with the notes their names have', () => {
  const drums = [['oar low', 36], ['oar high', 37], ['bilge hiss', 42]] as const // prettier-ignore
  const files = drums.flatMap(([drum, note]) => [1, 2, 3].flatMap((level) => [1, 2].map((take) => ({ name: `${note} ${drum} v${level} rr${take}.wav` })))) // prettier-ignore
  const plan = planOf(files)
  expect(plan.pads.map(({ name, note, bands }) => [name, note, bands.map((band) => band.turns.length)])).toEqual([
    ['Bilge hiss', 42, [2, 2, 2]],
    ['Oar high', 37, [2, 2, 2]],
    ['Oar low', 36, [2, 2, 2]],
  ])
  // Drums of other words and numbers, whatever stands where; numbers of drums, takes and notes are told apart.
  const five = [['Kick', 36], ['Snare', 38], ['Hat closed', 42], ['Tom 1', 45], ['Tom 2', 47]] as const // prettier-ignore
  const manners = [
    (drum: string, _note: number, mic: string, level: number, take: number) => `${drum}_${mic}_v${level}_0${take}`,
    (drum: string, note: number, mic: string, level: number, take: number) => `${note} ${drum} ${mic} ${level} rr${take}`,
    (drum: string, note: number, mic: string, level: number, take: number) => `${mic}-${drum.replace(' ', '')}-${note}-${['001-063', '064-127'][level - 1]}-t${take}`, // prettier-ignore
  ]
  for (const manner of manners) {
    const set = five.flatMap(([drum, note]) => ['Deck', 'Pier'].flatMap((mic) => [1, 2].flatMap((level) => [1, 2, 3].map((take) => ({ name: manner(drum, note, mic, level, take), frames: 100 * note + 1000 * level + 37 * take, ...loud(level, take) }))))) // prettier-ignore
    const found = planOf(set)
    expect(found.unplaced).toEqual([])
    expect(found.pads.map(({ microphones, bands }) => [microphones.length, ...bands.map(({ turns }) => turns.length)])).toEqual(Array.from({ length: 5 }, () => [2, 3, 3])) // prettier-ignore
  }
  const toms = ['tom1', 'tom2'].flatMap((drum) => [1, 2, 3].map((take) => ({ name: `${drum}_rr${take}.wav` })))
  expect(planOf(toms).pads.map((pad) => [pad.name, pad.bands[0].turns.length])).toEqual([['Tom 1', 3], ['Tom 2', 3]]) // prettier-ignore
})

test('no names whatever are lost or placed twice: each file has one place or one reason', () => {
  const word = fc.constantFrom('hull', 'C2', 'v1', 'rr', '3', '03', '1-64', 'close', 'soft', 'Very', '-', '_', ' ', 'x9', '127', 'é', '')
  fc.assert(
    fc.property(
      fc.array(
        fc.array(word, { maxLength: 7 }).map((words) => words.join('_')),
        { maxLength: 40 },
      ),
      (names) => {
        const files = names.map((name) => ({ name }))
        const plan = planOf(files)
        const placed = plan.pads.flatMap((pad) => pad.bands.flatMap((band) => band.turns.flatMap((turn) => [...turn.files.values()])))
        const all = [...placed, ...plan.unplaced.map(({ file }) => file)].sort((a, b) => a - b)
        expect(all).toEqual(files.map((_, i) => i))
        for (const pad of plan.pads) pad.bands.forEach((band, i) => expect(band.fromVelocity).toBeGreaterThan(i === 0 ? 0 : pad.bands[i - 1].fromVelocity)) // prettier-ignore
      },
    ),
  )
})

test('words that may be microphones are taken for them where the drum has a name besides, and asked about', () => {
  const files = ninety((mic, level, take) => `hull thump ${{ close: 'keel', far: 'deck', room: 'pier' }[mic]} d${level + 1} t${two(take)}`) // prettier-ignore
    .map(({ file }) => file)
    .filter((_, i) => i !== 40)
  const read = readNames(files)
  expect(read.question?.roles.slice(0, 2)).toEqual(['microphone', 'drum'])
  const [pad] = planByNames(files, read).pads
  expect([pad.name, pad.microphones, pad.gaps.length]).toEqual(['Hull thump', ['deck', 'keel', 'pier'], 1])
})

test('takes of one peak look as if they had been levelled', () => {
  expect(looksLevelled([-1, -1.2, -1.1, -1])).toBe(true)
  expect(looksLevelled([-1, -1.2, -1.1, -12])).toBe(false)
  expect(looksLevelled([-1, -1, -1])).toBe(false)
})
