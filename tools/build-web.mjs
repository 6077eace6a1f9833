// Builds the web application into app/dist, and keeps it until its sources change.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'

import { Fault, root, webFolder } from './paths.mjs'

const SOURCES = ['app', 'core', 'demo', 'package-lock.json', 'tools/build-engine.mjs', 'tools/build-fonts.mjs', 'tools/build-web.mjs']
const LEFT_OUT = /(^|\/)(node_modules|dist|\.expo)(\/|$)|\.test\.tsx?$|^app\/public\/(engine|fonts)\//

function* files(path) {
  const inRoot = relative(root, path)
  if (LEFT_OUT.test(inRoot)) return
  const entries = (() => {
    try {
      return readdirSync(path).sort()
    } catch {
      return undefined
    }
  })()
  if (entries) for (const name of entries) yield* files(join(path, name))
  else yield path
}

function sourceHash() {
  const hash = createHash('sha256')
  for (const source of SOURCES)
    for (const path of files(join(root, source))) hash.update(relative(root, path)).update('\0').update(readFileSync(path)).update('\0')
  return hash.digest('hex')
}

export async function buildWeb() {
  const { buildEngine } = await import('./build-engine.mjs')
  const { buildFonts } = await import('./build-fonts.mjs')
  await buildEngine()
  buildFonts()
  const stamp = join(webFolder, '.sources')
  const wanted = sourceHash()
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  console.error('Building the web application (a minute or two, kept until its sources change) ...')
  rmSync(webFolder, { recursive: true, force: true })
  const result = spawnSync(process.execPath, [join(root, 'node_modules/expo/bin/cli'), 'export', '-p', 'web'], {
    cwd: join(root, 'app'),
    encoding: 'utf8',
    maxBuffer: 64 * 1024 * 1024,
    env: { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', CI: '1', NODE_ENV: 'production' },
  })
  if (result.status !== 0)
    throw new Fault(`The web application could not be built:\n${(result.stderr + result.stdout).trim().split('\n').slice(-15).join('\n')}`)
  mkdirSync(webFolder, { recursive: true })
  makeInstallable()
  await compressAll()
  writeFileSync(stamp, wanted)
}

/** Gives the service worker the list of files to keep. */
function makeInstallable() {
  const hash = createHash('sha256')
  const paths = []
  for (const path of walk(webFolder)) {
    if (/\.map$|metadata\.json$|\/\.[^/]*$/.test(path)) continue
    paths.push(`/${relative(webFolder, path)}`)
    hash.update(path).update(readFileSync(path))
  }
  const source = readFileSync(join(root, 'app/service-worker.js'), 'utf8')
  const version = hash.update(source).digest('hex').slice(0, 12)
  writeFileSync(join(webFolder, 'sw.js'), `const FILES = ${JSON.stringify(paths)}\nconst VERSION = '${version}'\n${source}`)
}

const COMPRESSED = /\.(js|mjs|css|html|json|svg|webmanifest)$/

/** Lays a brotli and a gzip form beside each text, so that answers cost nothing. */
async function compressAll() {
  const paths = [...walk(webFolder)].filter((path) => COMPRESSED.test(path))
  const one = async (path) => {
    const bytes = readFileSync(path)
    const params = { [constants.BROTLI_PARAM_QUALITY]: 11, [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length }
    const [br, gz] = await Promise.all([promisify(brotliCompress)(bytes, { params }), promisify(gzip)(bytes, { level: 9 })])
    writeFileSync(`${path}.br`, br)
    writeFileSync(`${path}.gz`, gz)
  }
  await Promise.all(paths.map(one))
}

function* walk(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) yield* walk(path)
    else yield path
  }
}
