import assert from 'node:assert/strict'
import { test } from 'node:test'

import { countLines, isTest, sayShare, tooFewTests } from './tests-share.mjs'

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

test('too few tests are told with how many lines are missing, which are then enough', () => {
  assert.equal(tooFewTests([{ tests: 26, all: 100 }]), undefined)
  const missing = Number(/: (\d+) lines/.exec(tooFewTests([{ tests: 100, all: 1000 }]))[1])
  assert.equal(tooFewTests([{ tests: 100 + missing, all: 1000 + missing }]), undefined)
  assert.notEqual(tooFewTests([{ tests: 100 + missing - 1, all: 1000 + missing - 1 }]), undefined)
  assert.match(tooFewTests([{ tests: 0, all: 10 }]), /^Tests are fewer than 26 % /)
})
