import assert from 'node:assert/strict'
import { test } from 'node:test'

import { countLines, isTest, sayShare } from './tests-share.mjs'

test('what is a test, or only for tests, is told from what is not', () => {
  for (const path of ['e2e/phone.spec.ts', 'e2e/helpers.ts', 'core/kit/list.test.ts', 'app/ui/controls/Slider.test.tsx', 'core/engine/testing/scores.ts', 'core/kit/builders.ts'])
    assert.equal(isTest(path), true, path) // prettier-ignore
  for (const path of ['core/kit/list.ts', 'app/ui/controls/Slider.tsx', 'tools/test.mjs', 'bench/main.ts'])
    assert.equal(isTest(path), false, path)
})

test('the share counts every room, and no more tests than lines', () => {
  const rooms = countLines()
  for (const { room, tests, all } of rooms) assert.ok(all > 0 && tests <= all, room)
  assert.equal(rooms.find(({ room }) => room === 'e2e').tests, rooms.find(({ room }) => room === 'e2e').all)
  assert.match(sayShare(), /^Tests are \d+\.\d % of \d+ lines: app /)
})
