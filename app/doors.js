const { existsSync, readdirSync, readFileSync, statSync } = require('node:fs')
const { createHash } = require('node:crypto')
const { dirname, join, relative, sep } = require('node:path')

const core = join(__dirname, '../core')

const fileOf = (from, specifier) => {
  const path = join(dirname(from), specifier)
  return [`${path}.ts`, `${path}.tsx`, join(path, 'index.ts')].find(existsSync)
}

/** The names that a file gives to others, each with the file and the name it comes from. */
function exportsOf(file) {
  const found = new Map()
  const text = readFileSync(file, 'utf8')
  for (const [, names, specifier] of text.matchAll(/^export \{([^}]*)\} from '([^']+)'/gm))
    for (const name of names.split(',')) {
      const [own, given = own] = name.trim().split(/ as /)
      if (own) found.set(given, { file: fileOf(file, specifier), name: own })
    }
  for (const [, name] of text.matchAll(/^export (?:const|let|class|enum|(?:async )?function\*?) (\w+)/gm)) found.set(name, { file, name })
  for (const [, specifier] of text.matchAll(/^export \* from '([^']+)'/gm))
    for (const [name, from] of exportsOf(fileOf(file, specifier))) if (!found.has(name)) found.set(name, from)
  return found
}

const known = new Map()
const exportsOnce = (file) => known.get(file) ?? known.set(file, exportsOf(file)).get(file)

const isOurs = (file) => [core, __dirname].some((folder) => file.startsWith(folder + sep) && !file.includes(`${sep}node_modules${sep}`))

/** The door that is meant, a room's index.ts, as a file; nothing for what is no door. */
function doorOf(specifier, from) {
  const room = /^@heliaster\/core\/([\w/]+)$/.exec(specifier)
  const file = room ? join(core, room[1], 'index.ts') : specifier.startsWith('.') && isOurs(from) ? fileOf(from, specifier) : undefined
  return file?.endsWith(`${sep}index.ts`) && existsSync(file) ? file : undefined
}

/**
 * A Babel plugin: names taken from a door of core or of a place are taken from the files behind it, so that a page loads no
 * more than it uses. Metro itself keeps all that a door names.
 */
const straighten = ({ types: t }) => {
  const straight = (path, filename, imported, made) => {
    const door = doorOf(path.node.source.value, filename)
    const { specifiers } = path.node
    if (!door || specifiers.length === 0 || !specifiers.every((one) => imported(one) !== undefined)) return
    const names = exportsOnce(door)
    path.replaceWithMultiple(
      path.node.specifiers.map((one) => {
        const from = names.get(imported(one))
        if (!from) return made(one, imported(one), path.node.source)
        const way = relative(dirname(filename), from.file).split(sep).join('/')
        return made(one, from.name, t.stringLiteral(way.startsWith('.') ? way : `./${way}`))
      }),
    )
  }
  const importedName = (one) => (t.isImportSpecifier(one) ? one.imported.name : undefined)
  const passedOn = (one) => (t.isExportSpecifier(one) ? one.local.name : undefined)
  const anImport = (one, name, source) => t.importDeclaration([t.importSpecifier(one.local, t.identifier(name))], source)
  const anExport = (one, name, source) => t.exportNamedDeclaration(undefined, [t.exportSpecifier(t.identifier(name), one.exported)], source)
  return {
    visitor: {
      Program(program, { filename }) {
        if (!filename) return
        for (const path of program.get('body')) {
          if (path.node.importKind === 'type' || path.node.exportKind === 'type' || !path.node.source) continue
          if (path.isImportDeclaration()) straight(path, filename, importedName, anImport)
          else if (path.isExportNamedDeclaration()) straight(path, filename, passedOn, anExport)
        }
      },
    },
  }
}

function* filesOf(folder) {
  for (const name of readdirSync(folder).sort()) {
    const path = join(folder, name)
    if (name === 'node_modules' || name === 'dist' || /\.test\.tsx?$/.test(name)) continue
    if (statSync(path).isDirectory()) yield* filesOf(path)
    else if (/\.tsx?$/.test(name)) yield path
  }
}

/** Changes when anything moves behind the doors: what was made by an earlier way is then made anew. */
const version = () => {
  const hash = createHash('sha256').update(readFileSync(__filename))
  for (const path of [...filesOf(core), ...filesOf(__dirname)])
    hash.update(
      `${path}\n${readFileSync(path, 'utf8')
        .match(/^export .*/gm)
        ?.join('\n')}`,
    )
  return hash.digest('hex')
}

module.exports = Object.assign(straighten, { version })
