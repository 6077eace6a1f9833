/** @jest-environment node */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

const files = ['controls', 'drawing', 'layout', 'pointer'].flatMap((room) =>
  readdirSync(join(__dirname, room))
    .filter((name) => name.endsWith('.tsx') && !name.includes('.test.'))
    .map((name) => join(__dirname, room, name)),
)

test.each(files)('%s says in its first line what of the elements it renders, or why nothing', (path) => {
  const [first, ...rest] = readFileSync(path, 'utf8').split('\n')
  expect(first).toMatch(/^\/\/ \S.*\.$/)
  const isRendered = rest.some((line) => /from '@rneui\/(themed|base)\/dist\/[\w/]+'/.test(line))
  expect([path, /^\/\/ Renders the elements' /.test(first)]).toEqual([path, isRendered])
})
