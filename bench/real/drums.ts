import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'

import { readWav, toMono } from '../../core/audio'
import type { Family } from '../../core/kit'
import { createRandom, gaussian } from '../../demo/random'
import { REAL_RATE, unpacked } from './material'
import type { RealStrike } from './material'

/** One drum of a sound bank as its player plays it, and what the standard's key map calls it. */
export interface LabelledDrum {
  readonly family: Family
  readonly samples: Float32Array
}

interface Bank {
  readonly path: string
  /** Nothing was ever tried on it while the guess was made. */
  readonly isUnseen?: boolean
}

/** Packages of Debian's registry that hold drums by the standard's key map. Nothing of them is kept with the project. */
export const banks: Readonly<Record<string, Bank>> = {
  'timgm6mb-soundfont': { path: 'usr/share/sounds/sf2/TimGM6mb.sf2' },
  'opl3-soundfont': { path: 'usr/share/sounds/sf2/OPL-3_FM_128M.sf2' },
  'fluid-soundfont-gm': { path: 'usr/share/sounds/sf2/FluidR3_GM.sf2', isUnseen: true },
  'musescore-general-soundfont-lossless': { path: 'usr/share/sounds/sf2/MuseScore_General_Full.sf2', isUnseen: true },
}

/** Source: General MIDI System Level 1, percussion key map (MIDI Association, 1991); what has no family of ours is left out. */
const LABELS: Readonly<Record<number, Family>> = {
  35: 'kick', 36: 'kick', 38: 'snare', 40: 'snare', 39: 'clap',
  41: 'lowTom', 43: 'lowTom', 45: 'midTom', 47: 'midTom', 48: 'highTom', 50: 'highTom',
  42: 'closedHat', 44: 'closedHat', 46: 'openHat',
  49: 'crash', 57: 'crash', 51: 'ride', 59: 'ride', 55: 'splash', 52: 'cymbal',
  53: 'bell', 56: 'bell', 67: 'bell', 68: 'bell', 80: 'bell', 81: 'bell',
  54: 'shaker', 69: 'shaker', 70: 'shaker', 82: 'shaker',
  75: 'wood', 76: 'wood', 77: 'wood',
} // prettier-ignore

/** Drum sets by program: standard, room, power, jazz, brush. */
const PROGRAMS = [0, 8, 16, 32, 40]
const VELOCITIES = [60, 110]
const SECONDS_EACH = 5

/** The drums of a bank, each set and strength by itself; nothing where there is no registry or no player. */
export function labelledDrums(name: string): LabelledDrum[] {
  const folder = spawnSync('which', ['fluidsynth']).status === 0 ? unpacked(name) : undefined
  if (!folder) {
    console.error(`${name} is left out: it needs apt-get with a registry, dpkg-deb and fluidsynth.`)
    return []
  }
  const notes = Object.keys(LABELS).map(Number)
  return PROGRAMS.flatMap((program) =>
    VELOCITIES.flatMap((velocity) => {
      const played = playedBy(join(folder, banks[name]!.path), folder, program, velocity, notes)
      const frames = SECONDS_EACH * REAL_RATE
      return notes.map((note, i) => ({ family: LABELS[note]!, samples: trimmed(played.subarray(i * frames, (i + 1) * frames)) }))
    }),
  ).filter(({ samples }) => samples.length > REAL_RATE / 100)
}

/** A hit as it is cut: from where it begins to where it is not heard any more. */
function trimmed(samples: Float32Array): Float32Array {
  const top = samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)
  const from = samples.findIndex((sample) => Math.abs(sample) > 0.02 * top)
  const to = samples.findLastIndex((sample) => Math.abs(sample) > 0.001 * top)
  return top > 0.001 ? samples.subarray(from, to + 1) : new Float32Array()
}

function playedBy(bank: string, folder: string, program: number, velocity: number, notes: readonly number[]): Float32Array {
  return played(
    bank,
    join(folder, `${program}-${velocity}`),
    program,
    notes.map((note) => ({ note, velocity, bend: 0 })),
  )
}

/** A strike of a drum of the key map: its velocity 1..127, and how far from its pitch, in cents. */
export interface DrumStrike {
  readonly note: number
  readonly velocity: number
  readonly bend: number
}

/** Each of these strikes by itself, as a bank plays a set of its drums; nothing where there is no registry or no player. */
export function playedStrikes(name: string, program: number, strikes: readonly DrumStrike[]): Float32Array[] {
  const folder = spawnSync('which', ['fluidsynth']).status === 0 ? unpacked(name) : undefined
  if (!folder) return []
  const base = join(folder, 'strikes')
  rmSync(`${base}.wav`, { force: true })
  const all = played(join(folder, banks[name]!.path), base, program, strikes)
  const frames = SECONDS_EACH * REAL_RATE
  return strikes.map((_, i) => trimmed(all.subarray(i * frames, (i + 1) * frames)))
}

/** The drums of the key map that have a family of ours. */
export const drumNotes = Object.keys(LABELS).map(Number)
export const drumPrograms = PROGRAMS
export const familyOfNote = (note: number): Family => LABELS[note]!

const SOFT_TO_HARD = [25, 45, 65, 85, 105, 125]
const STRAY_CENTS = 8

/** The drums of a bank's first set, each struck softly to hard and a little off its pitch. */
export function strikesOfBank(name: string, seed: number): RealStrike[] {
  const random = createRandom(seed)
  const strikes = drumNotes.flatMap((note) => SOFT_TO_HARD.map((velocity) => ({ note, velocity, bend: STRAY_CENTS * gaussian(random) })))
  const sounds = playedStrikes(name, PROGRAMS[0]!, strikes)
  return sounds.flatMap((samples, i) => {
    const { note, velocity } = strikes[i]!
    return samples.length > 0 ? [{ name: `${note} ${velocity}`, thing: `${note}`, samples }] : []
  })
}

function played(bank: string, base: string, program: number, strikes: readonly DrumStrike[]): Float32Array {
  if (!existsSync(`${base}.wav`)) {
    mkdirSync(dirname(base), { recursive: true })
    writeFileSync(`${base}.mid`, midiOf(program, strikes))
    const dry = ['-R', '0', '-C', '0']
    execFileSync('fluidsynth', ['-ni', '-q', ...dry, '-g', '0.6', '-r', String(REAL_RATE), '-F', `${base}.wav`, bank, `${base}.mid`])
  }
  const read = readWav(readFileSync(`${base}.wav`))
  if (!read.ok) throw new Error(read.message)
  return toMono(read.file.audio)
}

/** One strike each `SECONDS_EACH` on the drums' channel, at 500 ticks a second; a wheel bends two semitones each way. */
function midiOf(program: number, strikes: readonly DrumStrike[]): Uint8Array {
  const ticks = SECONDS_EACH * 500
  const wide = (value: number) => [0x80 | (value >> 7), value & 0x7f]
  const bent = (cents: number) => 8192 + Math.round((cents / 200) * 8191)
  const events = strikes.flatMap(({ note, velocity, bend }) => [
    ...[0, 0xe9, bent(bend) & 0x7f, bent(bend) >> 7],
    ...[100, 0x99, note, velocity, ...wide(ticks - 100), 0x89, note, 0],
  ])
  const track = [0, 0xc9, program, ...events, 0, 0xff, 0x2f, 0]
  const size = [track.length >> 24, track.length >> 16, track.length >> 8, track.length].map((byte) => byte & 0xff)
  const head = [...Buffer.from('MThd'), 0, 0, 0, 6, 0, 0, 0, 1, 250 >> 8, 250 & 0xff]
  return Uint8Array.from([...head, ...Buffer.from('MTrk'), ...size, ...track])
}
