import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { findHits, heardStrikes } from '@heliaster/core/cut'

import type { Figure } from './figure'
import { manners, realScene } from './real/compose'
import type { RealScene } from './real/compose'
import { strikesOfBank } from './real/drums'
import { decoded, realStrikes } from './real/material'

const SEED = Number(process.env.BENCH_SEED ?? 940)
const KINDS = ['sparse', 'soft to loud', 'dense', 'noisy']
/** Nothing of these was looked at for what leaves out what codecs spread. */
const UNSEEN = ['fluid-soundfont-gm', 'musescore-general-soundfont-lossless', 'hedgewars-data', '0ad-data']

/** As people's files are coded, for one channel: file ending and ffmpeg's words. */
const CODECS: Readonly<Record<string, readonly [ending: string, ...words: string[]]>> = {
  'MP3 at 64 kbit/s': ['mp3', '-c:a', 'libmp3lame', '-b:a', '64k'],
  'MP3 at 96 kbit/s': ['mp3', '-c:a', 'libmp3lame', '-b:a', '96k'],
  'Vorbis, quality 4': ['ogg', '-c:a', 'libvorbis', '-q:a', '4'],
  'Opus at 48 kbit/s': ['opus', '-c:a', 'libopus', '-b:a', '48k'],
  'AAC at 64 kbit/s': ['m4a', '-c:a', 'aac', '-b:a', '64k'],
}

/** Where strikes are found to begin in recordings that went through a lossy codec, beside the same recordings as they were. */
export function figuresOfCoded(): Record<string, Figure> {
  const figures: Record<string, Figure> = {}
  for (const name of UNSEEN) {
    const strikes = name.endsWith('-data') ? realStrikes(name) : strikesOfBank(name, SEED)
    if (strikes.length === 0) continue
    const scenes = KINDS.map((kind) => realScene(manners[kind]!, strikes, SEED))
    const plain = sharesOf(scenes, ({ samples }) => samples)
    for (const [codec, words] of Object.entries(CODECS)) {
      const { near, nearest } = sharesOf(scenes, (scene) => throughCodec(scene, words), true)
      figures[`coded.${name}.${codec}`] = {
        value: near,
        unit: `of starts within 3 ms, ${nearest.toFixed(3)} within 1 ms`,
        peer: `never coded: ${plain.near.toFixed(3)} and ${plain.nearest.toFixed(3)}`,
      }
    }
  }
  return figures
}

function sharesOf(
  scenes: readonly RealScene[],
  samplesOf: (scene: RealScene) => Float32Array,
  isCoded = false,
): { near: number; nearest: number } {
  const offs = scenes.flatMap((scene) => {
    const samples = samplesOf(scene)
    const found = findHits(samples, scene.sampleRateHz, heardStrikes(samples, scene.sampleRateHz, { isCoded }).strikes)
    return scene.told.map((told) => Math.min(...found.map(({ frame }) => Math.abs(frame - told))) / scene.sampleRateHz)
  })
  const within = (seconds: number) => offs.filter((off) => off <= seconds).length / offs.length
  return { near: within(0.003), nearest: within(0.001) }
}

function throughCodec({ samples, sampleRateHz }: RealScene, [ending, ...words]: readonly [string, ...string[]]): Float32Array {
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-coded-'))
  const [plain, file] = [join(folder, 'plain.f32'), join(folder, `coded.${ending}`)]
  writeFileSync(plain, Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength))
  execFileSync('ffmpeg', ['-v', 'error', '-f', 'f32le', '-ar', String(sampleRateHz), '-ac', '1', '-i', plain, ...words, file])
  const heard = decoded(file)
  rmSync(folder, { recursive: true })
  return heard
}
