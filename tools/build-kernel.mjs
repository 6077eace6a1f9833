// Builds the engine's kernel: core/engine/kernel/assembly/*.ts to a WebAssembly module, kept as text in kernel/built.ts.
import asc from 'assemblyscript/asc'
import { build } from 'esbuild'
import { readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const folder = join(root, 'core/engine/kernel')

/** The numbers by which the kernel finds things, as the engine lays them out, as a source of the kernel. */
async function constantsSource() {
  const result = await build({ entryPoints: [join(folder, 'describe.ts')], bundle: true, format: 'esm', target: 'es2022', write: false })
  const { kernelConstants, kernelEnums } = await import(
    `data:text/javascript;base64,${Buffer.from(result.outputFiles[0].contents).toString('base64')}`
  )
  const lines = Object.entries(kernelConstants()).map(([name, value]) => `export const ${name}: ${typeOf(name)} = ${value}\n`)
  const enums = Object.entries(kernelEnums).map(
    ([name, places]) =>
      `export enum ${name} { ${Object.entries(places)
        .map(([field, place]) => `${field} = ${place}`)
        .join(', ')} }\n`,
  )
  return { constants: `// Made by tools/build-kernel.mjs from the engine's layout.\n${lines.join('')}`, enums: enums.join('') }
}

/** Places and sizes are added to addresses, codes are compared, the rest is reckoned with. */
function typeOf(name) {
  if (
    /^(NEVER|GRID_FRAMES|LONG_CELL_FRAMES|LONGEST_FRAMES|RING_FADES|MIX_FROM|READING_PLACES|PLACES_PER_CENT|MOST_PLACE|MOST_CENTS_OFF|MOST_FRAMES_OFF|RATE_PER_CENT)$/.test(
      name,
    )
  )
    return 'f64'
  return /Codes_|Kind_|READING_TABLES|GUARD_FRAMES/.test(name) ? 'i32' : 'usize'
}

/** Builds the kernel and returns it as text, and the source that carries it. */
export async function buildKernel() {
  const { constants, enums } = await constantsSource()
  const built = {}
  const options = ['voice.ts', '-O3', '--noAssert', '--runtime', 'stub', '--enable', 'simd,threads,bulk-memory', '--importMemory']
  const memory = ['--initialMemory', '256', '--maximumMemory', '65536', '--sharedMemory']
  const { error, stderr } = await asc.main([...options, ...memory, '--baseDir', join(folder, 'assembly'), '-o', 'kernel.wasm'], {
    readFile: (name, base) => standIn(name, constants, enums) ?? readOr(join(base, name)),
    writeFile: (name, contents) => {
      built[name] = contents
    },
    listFiles: () => [],
  })
  if (error) throw new Error(`The kernel cannot be built. ${stderr.toString()}`)
  const text = Buffer.from(built['kernel.wasm']).toString('base64')
  const lines = `/** Built by tools/build-kernel.mjs from assembly/; a test builds it again and compares. */\nexport const builtKernel =\n  '${text}'\n`
  return { text, built: lines, bytes: built['kernel.wasm'].length }
}

/** What stands for a file of the engine where the kernel's compiler asks for it: layouts, codes and the kernel's own mathematics. */
function standIn(name, constants, enums) {
  if (/(^|\/)constants\.ts$/.test(name)) return constants
  if (/program\/(layout|codes)\.ts$/.test(name)) return enums
  if (name === '../../time.ts') return `export { GRID_FRAMES, LONG_CELL_FRAMES, NEVER } from './constants'\n`
  const own = { '../../math.ts': 'math.ts', '../../voice/both/cells.ts': 'cells.ts' }[name]
  return own && readFileSync(join(folder, 'assembly', own), 'utf8')
}

function readOr(path) {
  try {
    return readFileSync(path, 'utf8')
  } catch {
    return null
  }
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  const { built, bytes } = await buildKernel()
  writeFileSync(join(folder, 'built.ts'), built)
  console.log(`The kernel is built: ${bytes} bytes.`)
}
