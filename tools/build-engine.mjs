// Builds the engine's one file: app/public/engine/engine-<hash>.mjs, named in engine.json beside it.
import { build } from 'esbuild'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const folder = join(root, 'app/public/engine')

/** Builds when needed and returns the path of the file. */
export async function buildEngine() {
  const result = await build({
    entryPoints: [join(root, 'core/engine/hosts/entry.ts')],
    bundle: true,
    format: 'esm',
    target: 'es2022',
    minifyWhitespace: true,
    write: false,
    legalComments: 'none',
  })
  const bytes = result.outputFiles[0].contents
  const name = `engine-${createHash('sha256').update(bytes).digest('hex').slice(0, 12)}.mjs`
  const path = join(folder, name)
  const manifest = join(folder, 'engine.json')
  const wanted = JSON.stringify({ file: name })
  if (existsSync(path) && existsSync(manifest) && readFileSync(manifest, 'utf8') === wanted) return path
  mkdirSync(folder, { recursive: true })
  for (const old of readdirSync(folder)) if (old !== name) rmSync(join(folder, old))
  writeFileSync(path, bytes)
  writeFileSync(manifest, wanted)
  return path
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) console.log(await buildEngine())
