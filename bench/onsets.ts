import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { writeWav } from '@heliaster/core/audio'
import { findHits, heardStrikes } from '@heliaster/core/cut'
import { RATE, tarpSlaps, walkAround } from '@heliaster/demo'

import type { Figure } from './figure'
import { impactScene, sceneWishes } from './impact-scenes'
import type { ImpactScene } from './impact-scenes'

const TOLERANCES_MS = [50, 5] as const
/** Decides what is struck; another number makes recordings that nobody has heard. */
const SEED = Number(process.env.BENCH_SEED ?? 41_000)

const PEER_METHODS = ['hfc', 'energy', 'complex', 'specdiff', 'specflux', 'kl', 'mkl']
const PEER_THRESHOLDS = [0.1, 0.3, 0.6, 1.2]
const PEER_SIZES = [[512, 128], [1024, 256]] as const // prettier-ignore

/**
 * F-measure of the onsets at default settings, on the demo's recordings and on impacts made up from a seed. The truth is
 * the first frame of each strike that reaches 1 % (-40 dB) of the strike's own peak; found and true are matched one to
 * one, nearest first. The peer, aubioonset, is tried at many settings on each recording, may subtract its own median
 * error first, and its best counts.
 */
export function figuresOfOnsets(): Record<string, Figure> {
  const figures: Record<string, Figure> = {}
  for (const scene of scenes()) {
    const found = findHits(scene.samples, scene.sampleRateHz, heardStrikes(scene.samples, scene.sampleRateHz).strikes)
    const ours = found.map((onset) => onset.frame / scene.sampleRateHz)
    const truth = scene.truth.map((frame) => frame / scene.sampleRateHz)
    const peers = peerOnsets(scene)
    for (const ms of TOLERANCES_MS) {
      const peer = Math.max(...peers.map((given) => fMeasure(given, truth, ms / 1000)))
      figures[`onsets.${scene.name}.fMeasure.${ms}ms`] = {
        value: fMeasure(ours, truth, ms / 1000),
        unit: 'of 1',
        ...(peers.length > 0 ? { peer: `aubioonset at its best, ${peer.toFixed(3)}` } : {}),
      }
    }
    figures[`onsets.${scene.name}.medianErrorMs`] = { value: medianErrorMs(ours, truth), unit: 'ms' }
  }
  return figures
}

type Heard = Omit<ImpactScene, 'audibleUntil'>

function scenes(): Heard[] {
  const demo = [['walk', walkAround()], ['slaps', tarpSlaps()]] as const // prettier-ignore
  return [
    ...demo.map(([name, { samples, strikes }]) => ({ name, samples, sampleRateHz: RATE, truth: strikes.map((strike) => strike.frame) })),
    ...sceneWishes(SEED).map((wish) => {
      const scene = impactScene(wish)
      return { ...scene, name: scene.name.replaceAll(/[^\w.]+/g, '-') }
    }),
  ]
}

/** What aubioonset hears at each of its settings, each shifted by its own median error; none where it is not installed. */
export function peerOnsets(scene: Pick<Heard, 'samples' | 'sampleRateHz' | 'truth'>): number[][] {
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-onsets-'))
  const path = join(folder, 'scene.wav')
  writeFileSync(path, writeWav({ sampleRateHz: scene.sampleRateHz, channels: [scene.samples] }, { bits: 24 }))
  const truth = scene.truth.map((frame) => frame / scene.sampleRateHz)
  const all: number[][] = []
  for (const method of PEER_METHODS)
    for (const threshold of PEER_THRESHOLDS)
      for (const [size, hop] of PEER_SIZES) {
        const settings = ['-O', method, '-t', String(threshold), '-B', String(size), '-H', String(hop), '-M', '0.05', '-s', '-90']
        const { stdout, status } = spawnSync('aubioonset', [...settings, path], { encoding: 'utf8' })
        if (status !== 0 || !stdout) continue
        const found = stdout.trim().split(/\s+/).map(Number)
        const late = median(truth.map((t) => nearest(found, t) - t))
        all.push(found.map((seconds) => seconds - late))
      }
  rmSync(folder, { recursive: true, force: true })
  return all
}

export function fMeasure(found: readonly number[], truth: readonly number[], tolerance: number): number {
  const pairs = found
    .flatMap((f, i) => truth.map((t, j) => ({ i, j, away: Math.abs(f - t) })))
    .filter((pair) => pair.away <= tolerance)
    .sort((a, b) => a.away - b.away)
  const takenFound = new Set<number>()
  const takenTruth = new Set<number>()
  for (const { i, j } of pairs) {
    if (takenFound.has(i) || takenTruth.has(j)) continue
    takenFound.add(i)
    takenTruth.add(j)
  }
  return (2 * takenFound.size) / (found.length + truth.length)
}

function medianErrorMs(found: readonly number[], truth: readonly number[]): number {
  return median(truth.map((t) => Math.abs(nearest(found, t) - t))) * 1000
}

function nearest(found: readonly number[], to: number): number {
  return found.reduce((best, one) => (Math.abs(one - to) < Math.abs(best - to) ? one : best), Infinity)
}

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[values.length >> 1]
}
