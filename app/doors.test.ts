/** @jest-environment node */
import { transformSync } from '@babel/core'
import { join } from 'node:path'

import doors from './doors'

/** What becomes of a line of a file of the application, or of core. */
function straightened(code: string, file = 'app/features/cut/some-file.ts'): string[] {
  const filename = join(__dirname, '..', file)
  const plugins = [doors, '@babel/plugin-syntax-typescript']
  return transformSync(code, { filename, plugins, configFile: false, babelrc: false })!.code!.split('\n')
}

test('a name taken from a door of core is taken from the file that has it, under the name it is wanted by', () => {
  expect(straightened("import { formatOf, readAudioFile as read } from '@heliaster/core/decode'")).toEqual([
    'import { formatOf } from "../../../core/decode/format.ts";',
    'import { readAudioFile as read } from "../../../core/decode/read-audio-file.ts";',
  ])
})

test('names that a door passes on as a whole are found as well', () => {
  expect(straightened("import { createKit, createPad } from '@heliaster/core/kit'")).toEqual([
    'import { createKit } from "../../../core/kit/make.ts";',
    'import { createPad } from "../../../core/kit/make.ts";',
  ])
})

test('doors of places, and those between rooms of core, are gone through as well', () => {
  expect(straightened("import { showKin } from '../gather'")).toEqual(['import { showKin } from "../gather/list/kin.ts";'])
  expect(straightened("export { CutScreen as default } from '../../../features/cut'", 'app/app/kit/[kitId]/cut.tsx')).toEqual([
    'export { CutScreen as default } from "../../../features/cut/CutScreen.tsx";',
  ])
  const [line] = straightened("import { createOffline } from '../engine'", 'core/ship/draw.ts')
  expect(line).toBe('import { createOffline } from "../engine/offline.ts";')
})

test.each([
  "import type { Kit } from '@heliaster/core/kit';",
  "import { useState } from 'react';",
  "import * as all from '@heliaster/core/kit';",
  "import { noSuchName } from '@heliaster/core/kit';",
  "import { Text } from '../../ui/layout/Text';",
  "import '@heliaster/core/kit';",
])('%s stays', (line) => {
  expect(straightened(line).join('\n').replace(/"/g, "'")).toBe(line)
})

test('what is kept of earlier builds is made anew when something moves behind a door', () => {
  expect(doors.version()).toMatch(/^[0-9a-f]{64}$/)
  expect(doors.version()).toBe(doors.version())
})
