// Takes single paths out of @mdi/js into app/ui/drawing/icon-paths.json: the whole set would be two megabytes in the page.
// `node tools/build-icons.mjs anchor sail-boat` adds signs; without words it writes anew those that are there.
import * as mdi from '@mdi/js'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

import { Fault, root } from './paths.mjs'

export const iconFile = join(root, 'app/ui/drawing/icon-paths.json')

/** The path of a sign on a field of 24 by 24, by its name in small letters with hyphens. */
export function iconPath(name) {
  const path = mdi[`mdi${name.replace(/(^|-)([a-z0-9])/g, (_, _hyphen, letter) => letter.toUpperCase())}`]
  if (path === undefined) throw new Fault(`@mdi/js has no sign named “${name}”. Look for another name.`)
  return path
}

export const iconNames = () => Object.keys(JSON.parse(readFileSync(iconFile, 'utf8')))

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  const names = [...new Set([...iconNames(), ...process.argv.slice(2)])].sort()
  writeFileSync(iconFile, `${JSON.stringify(Object.fromEntries(names.map((name) => [name, iconPath(name)])), undefined, 2)}\n`)
}
