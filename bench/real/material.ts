import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'

/** A recorded impact as it came, mono, and the thing it was struck on: files that differ in their number alone are one thing. */
export interface RealStrike {
  readonly name: string
  readonly thing: string
  readonly samples: Float32Array
}

export const REAL_RATE = 48000

interface Package {
  /** Files of struck things, by path. */
  readonly struck: RegExp
  /** Archives inside the package, and what of them is unpacked. */
  readonly archive?: { readonly path: string; readonly members: readonly string[] }
  /** Strikes are learned from here as well, and nothing is measured on it. */
  readonly isForLearning?: boolean
  /** The package is large, and nothing was ever tried on it while the rules were made. */
  readonly isUnseen?: boolean
}

/** Packages of Debian's registry that hold recorded impacts. Nothing of them is kept with the project. */
export const packages: Record<string, Package> = {
  'minetest-data': { struck: /default_(\w+_footstep|dig_\w+|dug_\w+|\w+_dig|\w+_dug|place_node\w*|break_glass|tool_breaks)[.\w]*\.ogg$/ },
  'hedgewars-data': { struck: /(\w*impact|bump|baseballbat|placed|ropeattach|hammer|shutterclick|snow|whipcrack)\.ogg$/ },
  'teeworlds-data': {
    struck: /(foley_(foot|land|body_impact)|hook_attach|hook_noattach|wp_switch|wp_noammo|wp_hammer_hit|hit_weak|hit_strong)[-\w]*\.wv$/,
  },
  'lugaru-data': {
    struck: /(Clank|FootStep\w+|HeavyImpact|Land|MetalHit|StaffBody|StaffHead|StaffBreak|SwordStaff|Thud|Break|Broken)\d*\.ogg$/,
    isForLearning: true,
  },
  'megaglest-data': {
    struck: /(arrow_hit|\w+_mine|\w+_walk|worker_harvest_wood|\w+_build|anvil|\w+_hit|hit)\d*\.(ogg|wav)$/,
    isForLearning: true,
  },
  'openarena-data': {
    struck: /(boot|clank|flesh|mech|step|splash|land|ric|dr1_end|dr1_strt|damage)\d*\.wav$/,
    archive: { path: 'usr/share/games/openarena/baseoa/pak0.pk3', members: ['sound/*'] },
    isForLearning: true,
  },
  '0ad-data': {
    struck:
      /(impact\/(arrow|shield|sling|flesh)\w+|singlesteps\/\w+|mining\/mine_\w+|lumbering\/lumber_tree_\w+|farming\/hoe\w+|construction\/con_(wood|stone)\w+|weapon\/swordhit\w+)\.ogg$/,
    archive: {
      path: 'usr/share/games/0ad/mods/public/public.zip',
      members: ['audio/attack/*', 'audio/actor/singlesteps/*', 'audio/resource/*'],
    },
    isUnseen: true,
  },
}

/** The packages that figures are measured on. */
export const measuredPackages = Object.entries(packages).filter(([, { isForLearning }]) => !isForLearning)

/** The impacts of a package, fetched once; nothing where there is no registry. */
export function realStrikes(name: string): RealStrike[] {
  const { struck } = packages[name]
  const folder = hasTools() ? unpacked(name) : undefined
  if (!folder) {
    console.error(`${name} is left out: it needs apt-get with a registry, dpkg-deb, unzip and ffmpeg.`)
    return []
  }
  return filesUnder(folder)
    .filter((path) => struck.test(path))
    .sort()
    .map((path) => ({ name: basename(path), thing: basename(path).replace(/([-_. ]?\d+[a-z]?)?\.\w+$/, ''), samples: decoded(path) }))
}

const hasTools = () => ['apt-get', 'dpkg-deb', 'unzip', 'ffmpeg'].every((tool) => spawnSync('which', [tool]).status === 0)

const CACHE = process.env.HELIASTER_BENCH_FILES ?? join(tmpdir(), 'heliaster-bench-files')

export function unpacked(name: string): string | undefined {
  const folder = join(CACHE, name)
  if (existsSync(folder)) return folder
  const fresh = `${folder}.fresh`
  rmSync(fresh, { recursive: true, force: true })
  mkdirSync(fresh, { recursive: true })
  if (spawnSync('apt-get', ['download', name], { cwd: fresh }).status !== 0) return undefined
  const file = readdirSync(fresh).find((one) => one.endsWith('.deb'))
  if (!file) return undefined
  execFileSync('dpkg-deb', ['-x', file, '.'], { cwd: fresh })
  rmSync(join(fresh, file))
  const archive = packages[name]?.archive
  if (archive) {
    execFileSync('unzip', ['-q', '-o', archive.path, ...archive.members, '-d', 'unpacked'], { cwd: fresh })
    rmSync(join(fresh, 'usr'), { recursive: true })
  }
  renameSync(fresh, folder)
  return folder
}

function filesUnder(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name))
}

/** As ffmpeg hears it: mono at one rate. */
export function decoded(path: string): Float32Array {
  const pcm = execFileSync('ffmpeg', ['-v', 'error', '-i', path, '-ac', '1', '-ar', String(REAL_RATE), '-f', 'f32le', '-'], {
    maxBuffer: 1 << 28,
  })
  return new Float32Array(pcm.buffer.slice(pcm.byteOffset, pcm.byteOffset + pcm.byteLength))
}
