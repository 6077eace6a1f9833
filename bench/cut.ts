import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { momentaryLoudness, writeWav } from '@heliaster/core/audio'
import { cutRecording, EDGE_FADE_IN_SECONDS, EDGE_FADE_OUT_SECONDS, pitchOf } from '@heliaster/core/cut'
import { clipSamples } from '@heliaster/core/engine'
import { wholeClip } from '@heliaster/core/kit'

import type { Figure } from './figure'
import { impactScene, sceneWishes } from './impact-scenes'
import { struckTone } from './struck-tones'

const SEED = Number(process.env.BENCH_SEED ?? 41_000)
const RATE = 48000
const MINUTES = 10
const TONES = 500
const PIECE_SECONDS = 60
const RUNS = 6

/** Cutting ten minutes against aubioonset's onsets alone; pitch of struck tones; loudness against ffmpeg's. */
export function figuresOfCut(): Record<string, Figure> {
  return { ...edges(), ...speed(), ...pitch(), ...loudness() }
}

const FADES = { fadeInSeconds: EDGE_FADE_IN_SECONDS, fadeOutSeconds: EDGE_FADE_OUT_SECONDS }
const EARLY_SECONDS = 0.001
const SLACK_SECONDS = 0.005

/**
 * The share of strikes that need no hand: a clip begins on the strike or at most 1 ms before it, holds it until it is
 * under the noise of the room or the next begins, has no neighbour inside, and begins and ends at zero.
 */
function edges(): Record<string, Figure> {
  let good = 0
  let all = 0
  for (const wish of sceneWishes(SEED + 500)) {
    const { samples, sampleRateHz, truth, audibleUntil } = impactScene(wish)
    const audio = { sampleRateHz, channels: [samples] }
    const hits = cutRecording(audio, { waterLine: 0.3, findsLevel: true, minGapSeconds: 0.06 })
    all += truth.length
    truth.forEach((strike, i) => {
      const next = truth[i + 1] ?? Infinity
      const hit = hits.find(({ startFrame }) => startFrame <= strike && startFrame >= strike - EARLY_SECONDS * sampleRateHz)
      if (!hit || hit.endFrame > next) return
      if (hit.endFrame < Math.min(audibleUntil[i], next) - SLACK_SECONDS * sampleRateHz) return
      const [clip] = clipSamples(audio, { ...wholeClip('bench' as never, { frames: samples.length, channels: 1 }), ...hit, ...FADES })
      if (clip[0] === 0 && clip[clip.length - 1] === 0) good++
    })
  }
  return { 'cut.needNoHand': { value: good / all, unit: `of ${all} strikes` } }
}

/** Processor time of the fastest of some runs each. The recording is a minute of impacts, ten times at other levels. */
function speed(): Record<string, Figure> {
  const wish = sceneWishes(SEED, PIECE_SECONDS)[0]
  const piece = impactScene({ ...wish, levelDb: [-24, 0] }).samples
  const samples = new Float32Array(MINUTES * 60 * RATE)
  for (let at = 0, n = 0; at + piece.length <= samples.length; at += piece.length, n++)
    samples.set(piece.map((sample) => sample * (1 - 0.07 * n)), at) // prettier-ignore
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-cut-'))
  const path = join(folder, 'ten minutes.wav')
  writeFileSync(path, writeWav({ sampleRateHz: RATE, channels: [samples] }, { bits: 16 }))
  let ours = Infinity
  let peer = Infinity
  let hits = 0
  for (let run = 0; run < RUNS; run++) {
    const from = process.cpuUsage()
    hits = cutRecording({ sampleRateHz: RATE, channels: [samples] }, { waterLine: 0.3, findsLevel: true, minGapSeconds: 0.06 }).length
    const { user, system } = process.cpuUsage(from)
    ours = Math.min(ours, (user + system) / 1e6)
    peer = Math.min(peer, peerSeconds(path))
  }
  rmSync(folder, { recursive: true, force: true })
  const unit = `s of processor time, ${MINUTES} min, ${hits} hits: onsets, edges and judgement`
  if (!Number.isFinite(peer)) return { 'cut.seconds': { value: ours, unit } }
  return {
    'cut.seconds': { value: ours, unit },
    'cut.ratioToOnsetsAlone': { value: ours / peer, unit: 'times its processor time', peer: 'aubioonset finding onsets only' },
  }
}

function peerSeconds(path: string): number {
  const { status, stderr } = spawnSync('bash', ['-c', 'TIMEFORMAT="%U %S"; time aubioonset "$0" > /dev/null', path], { encoding: 'utf8' })
  if (status !== 0) return Infinity
  const [user, system] = stderr.trim().split('\n').pop()!.split(' ').map(Number)
  return user + system
}

function pitch(): Record<string, Figure> {
  let near = 0
  for (let n = 0; n < TONES; n++) {
    const tone = struckTone(SEED + n)
    const found = pitchOf(tone.samples, RATE)
    if (found && Math.abs(1200 * Math.log2(found.hz / tone.hz)) <= 10) near++
  }
  return { 'pitch.within10Cents': { value: near / TONES, unit: `of ${TONES} struck tones, inharmonic and falling` } }
}

const LOUDNESS_CLIPS = 12

/** The largest difference between our momentary loudness and the maximum that ffmpeg's ebur128 says of the same clips. */
function loudness(): Record<string, Figure> {
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-loudness-'))
  let most = 0
  let measured = 0
  for (let n = 0; n < LOUDNESS_CLIPS; n++) {
    const clip = struckTone(SEED + 10_000 + n).samples
    const padded = new Float32Array(clip.length + RATE)
    padded.set(clip)
    const path = join(folder, 'clip.wav')
    writeFileSync(path, writeWav({ sampleRateHz: RATE, channels: [padded] }, { bits: 32 }))
    const { stderr } = spawnSync('ffmpeg', ['-nostats', '-i', path, '-filter:a', 'ebur128', '-f', 'null', '-'], { encoding: 'utf8' })
    const said = [...(stderr ?? '').matchAll(/ M:\s*(-?[\d.]+)/g)].map((match) => Number(match[1]))
    if (said.length === 0) continue
    measured++
    most = Math.max(most, Math.abs(Math.max(...said) - momentaryLoudness([clip], RATE)))
  }
  rmSync(folder, { recursive: true, force: true })
  if (measured === 0) return {}
  return { 'loudness.mostDifferenceDb': { value: most, unit: `dB, ${measured} clips`, peer: "ffmpeg's ebur128" } }
}
