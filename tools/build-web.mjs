// Builds the web application into app/dist, and keeps it until its sources change.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join, relative } from 'node:path'

import { Fault, root, webFolder } from './paths.mjs'

const SOURCES = ['app', 'core', 'demo', 'package-lock.json', 'tools/build-engine.mjs', 'tools/build-web.mjs']
const LEFT_OUT = /(^|\/)(node_modules|dist|\.expo)(\/|$)|\.test\.tsx?$|^app\/public\/engine/

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
  await buildEngine()
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
  writeFileSync(stamp, wanted)
}

const HEAD = `<link rel="manifest" href="/manifest.webmanifest"><link rel="apple-touch-icon" href="/icons/icon-192.png"><meta name="theme-color" content="#efe6d6" media="(prefers-color-scheme: light)"><meta name="theme-color" content="#0c1a21" media="(prefers-color-scheme: dark)"></head>`

/** Names the manifest in the page, and gives the service worker the list of files to keep. */
function makeInstallable() {
  const page = join(webFolder, 'index.html')
  writeFileSync(page, readFileSync(page, 'utf8').replace('</head>', HEAD))
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

function* walk(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) yield* walk(path)
    else yield path
  }
}
