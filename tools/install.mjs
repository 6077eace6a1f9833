// Installs what is missing: npm packages by the lock file, programs from Debian's packages.
import { execFileSync, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

import { Fault, root } from './paths.mjs'

export function ensureNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major !== 20 || minor < 19)
    throw new Fault(`Heliaster needs Node 20.19 or newer of version 20; this is ${process.versions.node}. Install Node 20 and try again.`)
}

/** npm packages, installed again only when the lock file has changed. */
export function ensurePackages() {
  const stamp = join(root, 'node_modules/.heliaster-lock')
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  console.error('Installing npm packages (a minute or two, once) ...')
  const result = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  if (result.status !== 0) throw new Fault('The npm packages could not be installed. Check the network and run the command again.')
  writeFileSync(stamp, lock)
}

/** A program, from the Debian package that brings it when it is not there. */
export function ensureProgram(paths, debianPackage) {
  const found = paths.find((path) => existsSync(path))
  if (found) return found
  const asRoot = process.getuid() === 0 ? [] : canSudo() ? ['sudo', '-n'] : undefined
  if (!asRoot || !existsSync('/usr/bin/apt-get'))
    throw new Fault(
      `${debianPackage} is missing and there is no right to install it. Run "sudo apt-get install ${debianPackage}" and try again.`,
    )
  console.error(`Installing ${debianPackage} (once) ...`)
  const apt = (...words) => {
    const [program, ...rest] = [...asRoot, 'apt-get', '-qq', ...words]
    execFileSync(program, rest, { stdio: ['ignore', 'ignore', 'pipe'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } })
  }
  try {
    apt('update')
    // The package's own service is not wanted: Heliaster starts what it needs by itself.
    apt('install', '-y', '--no-install-recommends', '-o', 'DPkg::options::=--force-confold', debianPackage)
  } catch (error) {
    throw new Fault(
      `${debianPackage} could not be installed: ${String(error.stderr ?? error.message)
        .trim()
        .split('\n')
        .pop()}. Install it by hand and try again.`,
    )
  }
  const now = paths.find((path) => existsSync(path))
  if (!now) throw new Fault(`${debianPackage} was installed, but ${paths[0]} is not there. Install it by hand and try again.`)
  return now
}

function canSudo() {
  return spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0
}

export const ensureMariadb = () => ensureProgram(['/usr/sbin/mariadbd'], 'mariadb-server')
export const ensureChromium = () => ensureProgram(['/usr/bin/chromium'], 'chromium')
/** The same without windows, which needs a quarter less of a processor for each page: for tests. */
export const ensureWindowless = () => ensureProgram(['/usr/bin/chromium-headless-shell'], 'chromium-headless-shell')
