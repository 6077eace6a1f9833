import { readFileSync } from 'node:fs'
import { join } from 'node:path'

import { choices, parameterNames, parameterRow } from './parameters'
import { effects } from './effects'
import { matterValues } from './matter-values'
import { notPlayed } from './not-played'
import { kitSchema, padSettingsSchema, tieSchema } from './kit'

const text = readFileSync(join(__dirname, '../../docs/kit-format.md'), 'utf8')
/** The rows of its tables, without the spaces that line them up. */
const rows = new Set(text.split('\n').filter((line) => line.startsWith('|')).map((line) => line.split('|').map((cell) => cell.trim()).join('|'))) // prettier-ignore

const plain = (value: number) => String(Number(value.toFixed(3)))

test('docs/kit-format.md has the table of parameters as it is, and lists what is not played, no more and no less', () => {
  for (const name of parameterNames) {
    const { unit, min, max, usual, scopes, played, moves, joins, movedBy = unit, draw } = parameterRow(name)
    const how = `${moves === 'live' ? 'while it sounds' : 'at the strike'}, ${joins === 'add' ? 'added up' : 'the innermost counts'}`
    const cells = [`\`${name}\``, unit, `${plain(min)}..${plain(max)}`, plain(usual), scopes.join(', '), played.join(', ') || 'none yet', how, movedBy, draw] // prettier-ignore
    expect(rows).toContain(`|${cells.join('|')}|`)
  }
  for (const [kind, values] of Object.entries(matterValues))
    for (const [name, { least, most, usual, unit }] of Object.entries(values))
      expect(rows).toContain(`|\`${kind}\`|\`${name}\`|${unit}|${least}..${most}|${usual}|`)
  for (const [name, list] of Object.entries(choices)) expect(rows).toContain(`|\`${name}\`|${list.join(', ')}|`)
  for (const kind of Object.keys(effects)) expect([...rows].some((row) => row.startsWith(`|\`${kind}\`|`))).toBe(true)
  const waiting = text.slice(text.indexOf('## Not played yet'), text.indexOf('## Edits')).split('\n').filter((line) => line.startsWith('|')) // prettier-ignore
  expect(waiting).toHaveLength(notPlayed.length + 2)
  for (const { where, words } of notPlayed) expect(rows).toContain(`|${where}|${words}|`)
})

test('docs/kit-format.md names every field of a kit, every setting of a pad and every kind of tie', () => {
  const fields = [...Object.keys(kitSchema.shape), ...Object.keys(padSettingsSchema.shape)]
  const kinds = tieSchema.options.map((option) => [...option.shape.kind.values][0]!)
  for (const name of [...fields, ...kinds]) expect([name, new RegExp(`\`[^\`]*\\b${name}\\b`).test(text)]).toEqual([name, true])
})

test('a draw is given once, and every parameter has its place within its range', () => {
  const all = parameterNames.map((name) => parameterRow(name))
  expect(new Set(all.map(({ draw }) => draw)).size).toBe(all.length)
  for (const { min, max, usual, draw, played, scopes } of all) {
    expect(usual >= min && usual <= max && draw >= 0 && draw <= 255).toBe(true)
    expect(played.every((scope) => scopes.includes(scope))).toBe(true)
    // What is set on a pad or in it is played; what is not played yet of other things is in the list of it.
    for (const scope of ['pad', 'ray', 'band', 'turn'] as const) expect(played.includes(scope)).toBe(scopes.includes(scope))
  }
})
