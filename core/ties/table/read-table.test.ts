import { seeded } from '../../kit/testing'
import type { PadId } from '../../kit/ids'
import { readTable } from './read-table'
import type { TablePad, TableReading } from './read-table'

const pad = (name: string, ringSeconds = 0): TablePad => ({ padId: name as PadId, name, ringSeconds })
/** The names in the cells, a dot for a hole, row by row. */
const shown = (reading: TableReading | undefined) => reading?.cells.map((row) => row.map((cell) => cell ?? '·'))

test('a drum struck in several places and opened by degrees, whatever parts the words', () => {
  const reading = readTable(['HatBowClosed', 'HatBowHalfOpen', 'HatBowOpen', 'HatEdgeOpen', 'HatEdgeClosed'].map((name) => pad(name)))!
  expect([reading.name, reading.spots, reading.openings]).toEqual(['Hat', ['Bow', 'Edge'], ['Closed', 'Half open', 'Open']])
  expect(shown(reading)).toEqual([
    ['HatBowClosed', 'HatBowHalfOpen', 'HatBowOpen'],
    ['HatEdgeClosed', '·', 'HatEdgeOpen'],
  ])
})

test.each([
  [['Snare', 'Snare rim', 'Snare shell'], ['', 'Rim', 'Shell'], ['']],
  [['hat open', 'hat closed', 'hat half open'], [''], ['Closed', 'Half open', 'Open']],
  [
    ['hat_1_open', 'hat_1_closed', 'hat_1_open_edge', 'hat_1_closed_edge'],
    ['', 'Edge'],
    ['Closed', 'Open'],
  ],
  [['hat closed', 'hat open 1', 'hat open 2', 'hat open 3'], [''], ['Closed', 'Open 1', 'Open 2', 'Open 3']],
  [['Ride bow', 'Ride cup', 'Ride edge'], ['Bow', 'Cup', 'Edge'], ['']],
])('%s', (names, spots, openings) => {
  const reading = readTable(names.map((name) => pad(name)))!
  expect([reading.spots, reading.openings]).toEqual([spots, openings])
  expect(reading.cells.flat().filter(Boolean).sort()).toEqual([...names].sort())
})

test('of words that nobody knows the opening is what explains how long the pads sound, and orders them', () => {
  let right = 0
  const seeds = Array.from({ length: 200 }, (_, i) => i + 1)
  for (const seed of seeds) {
    const random = seeded(seed)
    const word = () => Array.from({ length: 3 + Math.floor(random() * 5) }, () => 'bdfgklmnprstvz'[Math.floor(random() * 14)]! + 'aeiou'[Math.floor(random() * 5)]!).join('') // prettier-ignore
    const [drum, spots, openings] = [word(), Array.from({ length: 2 + Math.floor(random() * 3) }, word), Array.from({ length: 2 + Math.floor(random() * 4) }, word)] // prettier-ignore
    const between = [' ', '_', '-', '.'][Math.floor(random() * 4)]!
    const isSpotFirst = random() < 0.5
    const pads = spots.flatMap(
      (spot) =>
      openings.map((opening, i) => pad([drum, ...(isSpotFirst ? [spot, opening] : [opening, spot])].join(between), 0.15 * 2 ** i * (0.85 + 0.3 * random()))), // prettier-ignore
    )
    const hole = random() < 0.5 && pads.length > 5 ? Math.floor(random() * pads.length) : -1
    const given = pads.filter((_pad, i) => i !== hole).sort(() => random() - 0.5)
    const reading = readTable(given)!
    const lower = (words: readonly string[]) => words.map((one) => one.toLowerCase())
    expect(reading.cells.flat().filter(Boolean)).toHaveLength(given.length)
    if (lower(reading.openings).join() === openings.join() && lower(reading.spots).sort().join() === [...spots].sort().join()) right++
  }
  expect(right / seeds.length).toBeGreaterThan(0.95)
})

test('names that are no table are none: alike ones, others altogether, three things at once', () => {
  for (const names of [['Keel'], ['Keel', 'Keel'], ['Keel', 'Oar', 'Chain', 'Oar chain bell rope'], ['a b c', 'a b d', 'e b c', 'e f d']])
    expect(readTable(names.map((name) => pad(name)))).toBeUndefined()
})
