import assert from 'node:assert/strict'
import { test } from 'node:test'

import { mutantsOf, nearestFirst } from './mutants.mjs'

const changed = (text) => mutantsOf(text).map(({ from, to, by }) => text.slice(0, from) + by + text.slice(to))

test('one thing is another each time: operators, numbers, conditions, what is called', () => {
  assert.deepEqual(changed('const a = b < 2'), ['const a = b <= 2', 'const a = b < 3'])
  assert.deepEqual(changed('const a = !b && true'), ['const a = !b || true', 'const a = b && true', 'const a = !b && false'])
  assert.deepEqual(changed('const a = b ? c : d'), ['const a = !(b) ? c : d'])
  assert.deepEqual(changed('if (a) run()'), ['if (!(a)) run()', 'if (a) ;'])
})

test('types and imports say nothing that runs, and stay', () => {
  assert.deepEqual(changed("import { a } from 'b'\ninterface C { d: 1 | 2 }\ntype E = true"), [])
})

test('how something looks stays', () => {
  assert.deepEqual(changed('const ROW_PX = 44; const a = <Row style={{ gap: 8 }} size={12} />'), [])
  assert.deepEqual(changed('const a = <Row most={12} />'), ['const a = <Row most={13} />'])
})

test('the tests of a file’s own folder run first, those of other rooms last', () => {
  const tests = ['core/cut/cut.test.ts', 'app/ui/a.test.tsx', 'app/ui/layout/rows.test.tsx', 'app/ui/layout/deep/b.test.tsx']
  assert.deepEqual(nearestFirst('app/ui/layout/Row.tsx', tests), [tests[2], tests[3], tests[1], tests[0]])
})
