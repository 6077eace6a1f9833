import assert from 'node:assert/strict'
import { readFileSync } from 'node:fs'
import { test } from 'node:test'

import { iconFile, iconNames, iconPath } from './build-icons.mjs'

test('each sign in the application is the package’s path of that name, and a name it does not know is refused', () => {
  const paths = JSON.parse(readFileSync(iconFile, 'utf8'))
  assert.ok(iconNames().length > 50)
  for (const [name, path] of Object.entries(paths)) assert.equal(path, iconPath(name), name)
  assert.throws(() => iconPath('no-such-sign'), /no sign named “no-such-sign”/)
})
