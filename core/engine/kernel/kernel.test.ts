import { execFileSync } from 'node:child_process'

import { createMemory } from '../memory/memory'
import { createEngine } from '../state'
import { builtKernel } from './built'
import { createKernel } from './kernel'

test('the kernel that is kept is what its sources build', () => {
  const script = `import('./tools/build-kernel.mjs').then(async ({ buildKernel }) => process.stdout.write((await buildKernel()).text))`
  const built = execFileSync('node', ['-e', script], { cwd: `${__dirname}/../../..`, encoding: 'utf8', maxBuffer: 1 << 24 })
  expect(built === builtKernel).toBe(true)
})

test('it runs over memory that cannot be shared too, and a host without WebAssembly has none', () => {
  const own = new WebAssembly.Memory({ initial: 256, maximum: 256 })
  const memory = { ...createMemory(false), wasm: own }
  const kernel = createKernel(memory, 0)!
  expect(kernel.renderVoices(0, 3, 3, 0, 16)).toBe(3)
  expect(createKernel({ ...memory, wasm: undefined }, 0)).toBeUndefined()
  expect(createEngine({ ...createMemory(false), wasm: undefined }, 48000).kernel).toBeUndefined()
})
