// Builds the command line into .build/cli-<stamp>, which starts far faster than its sources; again only when these change.
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, mkdtempSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

import { root } from './paths.mjs'

const folder = join(root, '.build')
const sources = ['core', 'cli', 'tools/build-cli.mjs', 'package-lock.json']

/** Path of the built main module. */
export async function builtCli() {
  const name = `cli-${stampOf(sources)}`
  const main = join(folder, name, 'main.mjs')
  if (existsSync(main)) return main
  mkdirSync(folder, { recursive: true })
  const made = mkdtempSync(join(folder, 'making-'))
  await buildInto(made)
  for (const old of readdirSync(folder)) if (old.startsWith('cli-') && old !== name) rmSync(join(folder, old), { recursive: true })
  try {
    renameSync(made, join(folder, name))
  } catch (error) {
    rmSync(made, { recursive: true })
    if (!existsSync(main)) throw error // another call has built it meanwhile
  }
  return main
}

async function buildInto(outdir) {
  const { build } = await import('esbuild')
  const engineBuilder = pathToFileURL(join(root, 'tools/build-engine.mjs')).href
  await build({
    entryPoints: [join(root, 'cli/main.ts')],
    outdir,
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    outExtension: { '.js': '.mjs' },
    legalComments: 'none',
    logLevel: 'error',
    // Packages of the older kind among those that are bundled ask for it.
    banner: { js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);" },
    plugins: [
      {
        name: 'the engine is built by its own tool',
        setup: ({ onResolve }) => onResolve({ filter: /build-engine\.mjs$/ }, () => ({ path: engineBuilder, external: true })),
      },
    ],
  })
}

/** Stands for the names, sizes and times of all files. */
function stampOf(paths) {
  const hash = createHash('sha256')
  const add = (path) => {
    const stat = statSync(join(root, path))
    if (!stat.isDirectory()) hash.update(`${path} ${stat.size} ${stat.mtimeMs}\n`)
    else for (const name of readdirSync(join(root, path)).sort()) if (name !== 'node_modules') add(join(path, name))
  }
  for (const path of paths) add(path)
  return hash.digest('hex').slice(0, 12)
}
