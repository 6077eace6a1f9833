import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { readWav, toMono, writeWav } from '../core/audio'
import { findAttacks, partSound, workMatter } from '../core/matter'
import type { Figure } from './figure'
import { median } from './figure'
import { melDistance, melLevels, preEchoDb } from './matter/distance'
import { LEAD_FRAMES, madeHit, RATE } from './matter/made-hits'
import { closenessDb, madeMixture } from './matter/made-mixtures'
import { byFuzzy, byMedians, byTurns } from './matter/parting-peers'
import type { Peer } from './matter/parting-peers'
import { labelledDrums } from './real/drums'
import { realStrikes } from './real/material'

const STRETCHES = [0.5, 0.75, 1.5, 2, 4]
const MADE_HITS = 16
const REAL_HITS = 24
const LONGEST_FRAMES = 2 * RATE
const MIXTURES = 16
/** Nothing was tried on seeds from here on. */
const UNSEEN_SEED = 5001

/** Length apart from pitch against rubberband's finest engine and its crispest transients, whichever is nearer hit by hit; parting against three methods from the literature, each at its best setting; time for a hit of 3 s. */
export function figuresOfMatter(): Record<string, Figure> {
  return { ...figuresOfParting(), ...figuresOfTime(), ...figuresOfLength() }
}

interface Hit {
  readonly source: Float32Array
  readonly onset: number
  /** What is wanted at another length, where it is known. */
  truthAt?(stretch: number): Float32Array
}

function figuresOfLength(): Record<string, Figure> {
  if (spawnSync('which', ['rubberband']).status !== 0) {
    console.error('length apart from pitch is left out: it needs rubberband-cli (apt-get install rubberband-cli).')
    return {}
  }
  const sets: Record<string, Hit[]> = {
    made: Array.from({ length: MADE_HITS }, (_, i) => {
      const hit = madeHit(UNSEEN_SEED + i)
      return { source: hit.at(1), onset: LEAD_FRAMES, truthAt: (stretch: number) => hit.at(stretch) }
    }),
    real: spread(
      ['minetest-data', 'hedgewars-data', 'teeworlds-data'].flatMap((name) => realStrikes(name).map(({ samples }) => samples)),
    ).map(withLead),
    unseen: spread(realStrikes('0ad-data').map(({ samples }) => samples)).map(withLead),
    drumsUnseen: spread(labelledDrums('fluid-soundfont-gm').map(({ samples }) => samples)).map(withLead),
  }
  const folder = mkdtempSync(join(tmpdir(), 'bench-matter-'))
  try {
    return Object.assign({}, ...Object.entries(sets).flatMap(([set, hits]) => STRETCHES.map((stretch) => lengthFigures(folder, set, hits, stretch)))) // prettier-ignore
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Some of many, evenly over all of them. */
const spread = (all: readonly Float32Array[]): Float32Array[] =>
  Array.from({ length: Math.min(REAL_HITS, all.length) }, (_, i) => all[Math.floor((i * all.length) / Math.min(REAL_HITS, all.length))]!)

function withLead(samples: Float32Array): Hit {
  const source = new Float32Array(LEAD_FRAMES + Math.min(LONGEST_FRAMES, samples.length))
  source.set(samples.subarray(0, LONGEST_FRAMES), LEAD_FRAMES)
  return { source, onset: findAttacks([source], RATE)[0] ?? LEAD_FRAMES }
}

function lengthFigures(folder: string, set: string, hits: readonly Hit[], stretch: number): Record<string, Figure> {
  const [ours, theirs, echoes]: [number[], number[], number[]] = [[], [], []]
  for (const { source, onset, truthAt } of hits) {
    const truth = melLevels(truthAt?.(stretch) ?? source, RATE)
    const distance = (sound: Float32Array, shift = 0) =>
      melDistance(truth, melLevels(sound, RATE), (frame) => (frame + shift) / (truthAt ? 1 : stretch))
    const result = workMatter({ audio: { sampleRateHz: RATE, channels: [source] }, startFrame: 0, steps: [{ id: 'l', kind: 'time', values: { lengthPercent: 100 * stretch }, bypass: false }], tempoBpm: 120 }) // prettier-ignore
    if (!result.ok) continue
    const [sound] = result.audio.channels
    ours.push(distance(sound!))
    const peers = [['-3'], ['-2', '-c', '6']].map((settings) => stretchedByPeer(folder, source, stretch, settings))
    // A peer that is early or late as a whole is not worse for it.
    theirs.push(Math.min(...peers.flatMap((peer) => [-960, -480, 0, 480, 960].map((shift) => distance(peer, shift)))))
    echoes.push(preEchoDb(sound!, RATE, Math.round(onset * stretch)) - Math.max(-50, preEchoDb(source, RATE, onset) + 3))
  }
  if (ours.length === 0) return {}
  const worse = ours.filter((own, i) => own > theirs[i]!).length
  const name = `matter.length.${set}.${stretch}`
  const peer = 'the better of rubberband 3 fine and crisp 6, hit by hit'
  return {
    [`${name}.median`]: { value: median(theirs) / median(ours), unit: `times nearer, ${median(ours).toFixed(2)} dB to ${median(theirs).toFixed(2)} dB, farther in ${worse} of ${ours.length}`, peer },
    [`${name}.ninety`]: { value: ninety(theirs) / ninety(ours), unit: `times nearer, ${ninety(ours).toFixed(2)} dB to ${ninety(theirs).toFixed(2)} dB`, peer },
    [`${name}.preEcho`]: { value: Math.max(...echoes), unit: 'dB over what is allowed, the worst' },
  } // prettier-ignore
}

const ninety = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(0.9 * (values.length - 1))]!

function stretchedByPeer(folder: string, source: Float32Array, stretch: number, settings: readonly string[]): Float32Array {
  const [from, to] = [join(folder, 'in.wav'), join(folder, 'out.wav')]
  writeFileSync(from, writeWav({ sampleRateHz: RATE, channels: [source] }, { bits: 32 }))
  spawnSync('rubberband', [...settings, '-t', String(stretch), from, to])
  const read = readWav(readFileSync(to))
  if (!read.ok) throw new Error(read.message)
  return toMono(read.file.audio)
}

/** A hit of 3 s at twice its length, by processor time, against rubberband's finest engine. */
function figuresOfTime(): Record<string, Figure> {
  const folder = mkdtempSync(join(tmpdir(), 'bench-matter-'))
  try {
    const source = Float32Array.from({ length: 3 * RATE }, (_, i) => madeNoise(i) * Math.exp(-i / RATE))
    const steps = [{ id: 'l', kind: 'time' as const, values: { lengthPercent: 200 }, bypass: false }]
    const once = () => {
      const began = performance.now()
      workMatter({ audio: { sampleRateHz: RATE, channels: [source, source] }, startFrame: 0, steps, tempoBpm: 120 })
      return (performance.now() - began) / 1000
    }
    const first = once()
    const again = median([once(), once(), once()])
    const peer = spawnSync('which', ['rubberband']).status === 0 ? timeOfPeer(folder, source) : undefined
    return {
      'matter.time.first': { value: first, unit: 's for a stereo hit of 3 s to twice its length, the first' },
      'matter.time.again': { value: peer ? peer / again : again, unit: `times as fast (${again.toFixed(2)} s)`, ...(peer ? { peer: 'rubberband 3 fine' } : {}) },
    } // prettier-ignore
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

const madeNoise = (i: number): number => Math.sin(i * i * 0.37) * 0.3

function timeOfPeer(folder: string, source: Float32Array): number {
  const file = join(folder, 'in.wav')
  writeFileSync(file, writeWav({ sampleRateHz: RATE, channels: [source, source] }, { bits: 32 }))
  const began = performance.now()
  spawnSync('rubberband', ['-3', '-t', '2', file, join(folder, 'out.wav')])
  return (performance.now() - began) / 1000
}

/** Settings of each method that are tried; the best over all mixtures counts. */
const METHODS: Record<string, Peer[]> = {
  'median filtering': [2048, 4096].flatMap((size) => [9, 17].flatMap((along) => [17, 41].map((across) => byMedians(size, along, across)))),
  'iterative separation': [2048, 4096].flatMap((size) => [1, 1.25, 1.5, 2].map((factor) => byTurns(size, 17, 41, factor))),
  'fuzzy separation': [2048, 4096].flatMap((size) => [0.4, 0.5, 0.6, 0.7].map((low) => byFuzzy(size, 17, 41, low, low + 0.1))),
}

function figuresOfParting(): Record<string, Figure> {
  const mixtures = Array.from({ length: MIXTURES }, (_, i) => madeMixture(UNSEEN_SEED + i))
  const closeness = (part: Peer) =>
    mixtures.map(({ ringing, noise, both }) => {
      const got = part(both)
      return (closenessDb(ringing, got) + closenessDb(noise, both.map((sample, i) => sample - got[i]!))) / 2
    }) // prettier-ignore
  const ours = closeness((samples) => partSound([samples], RATE, { divideHz: 0, steadySeconds: 0.03 }).ringing[0]!)
  return Object.fromEntries(
    Object.entries(METHODS).map(([name, settings]) => {
      const best = settings.map(closeness).sort((a, b) => median(b) - median(a))[0]!
      const better = ours.filter((own, i) => own > best[i]!).length
      return [`matter.parting.${name.replace(/ .*/, '')}`, { value: median(ours) - median(best), unit: `dB nearer in the middle (${median(ours).toFixed(1)} to ${median(best).toFixed(1)}), nearer in ${better} of ${ours.length}`, peer: `${name} at its best setting` }] // prettier-ignore
    }),
  )
}
