// Lays the faces beside the page, app/public/fonts, with the sheet that names them.
import { copyFileSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

import { root } from './paths.mjs'

/** The name of each face in the application, its weight, its package, and the package's sheet and word for its files. */
const faces = [
  ['Bricolage_400', 400, '@fontsource-variable/bricolage-grotesque', 'wght.css', 'wght'],
  ['Bricolage_600', 600, '@fontsource-variable/bricolage-grotesque', 'wght.css', 'wght'],
  ['Bricolage_700', 700, '@fontsource-variable/bricolage-grotesque', 'wght.css', 'wght'],
  ['Mono_500', 500, '@fontsource/jetbrains-mono', '500.css', '500'],
]
const parts = ['latin', 'latin-ext']
const folder = join(root, 'app/public/fonts')

/** A face of one weight: where a file holds many, the browser takes the one that is named. */
function ruleOf([name, weight, from, sheet, word], part) {
  const source = join(root, 'node_modules', from)
  const block = readFileSync(join(source, sheet), 'utf8')
    .split('@font-face')
    .find((one) => one.includes(`-${part}-${word}-normal.woff2`))
  const file = `${from.split('/')[1]}-${part}-${word}-normal.woff2`
  copyFileSync(join(source, 'files', file), join(folder, file))
  const range = /unicode-range:\s*([^;]+);/.exec(block)[1]
  return `@font-face {\n  font-family: ${name};\n  font-weight: ${weight};\n  font-display: swap;\n  src: url('/fonts/${file}') format('woff2');\n  unicode-range: ${range};\n}\n`
}

export function buildFonts() {
  rmSync(folder, { recursive: true, force: true })
  mkdirSync(folder, { recursive: true })
  writeFileSync(join(folder, 'fonts.css'), faces.flatMap((face) => parts.map((part) => ruleOf(face, part))).join(''))
}
