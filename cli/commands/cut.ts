import { peakOf, peakOfAudio, toMono, writeWav } from '@heliaster/core/audio'
import type { Audio } from '@heliaster/core/audio'
import {
  cutHeard,
  heardStrikes,
  lineOf,
  lineWords,
  underLine,
  EDGE_FADE_IN_SECONDS,
  EDGE_FADE_OUT_SECONDS,
  evenGains,
  gridMoves,
  waterLineOf,
} from '@heliaster/core/cut'
import type { Hit } from '@heliaster/core/cut'
import { clipAudio } from '@heliaster/core/engine'
import { IN_TIME_GAP_SECONDS, USUAL_GAP_SECONDS, wasCoded, wholeClip } from '@heliaster/core/kit'
import { fitGains, fits, fitWords, scaled } from '@heliaster/core/ship'
import type { AudioHash, Clip, CutSettings, Repairs } from '@heliaster/core/kit'

import { readAudioFile, stem, writeBelow } from '../files'
import { choiceOption, numberOption, WrongUsage } from '../main'
import type { Command, Given } from '../main'

/**
 * Finds the hits of a recording, or cuts it on a grid, prints them, and writes each as a WAV file, repaired and with the
 * short fades of every cut, when a folder is named.
 */
export const cut: Command = {
  options: {
    sensitivity: { type: 'string' },
    gap: { type: 'string' },
    slow: { type: 'boolean' },
    'in-time': { type: 'boolean' },
    snap: { type: 'string' },
    parts: { type: 'string' },
    tempo: { type: 'string' },
    beats: { type: 'string' },
    first: { type: 'string' },
    'on-grid': { type: 'boolean' },
    'low-cut': { type: 'string' },
    'remove-dc': { type: 'boolean' },
    peak: { type: 'string' },
    even: { type: 'string' },
    fit: { type: 'string' },
    json: { type: 'boolean' },
    out: { type: 'string' },
  },
  paths: [1, 1],
  async run(given) {
    const [path] = given.paths
    const settings = settingsOf(given)
    const repair = repairsOf(given)
    const { audio, notes } = await readAudioFile(path)
    for (const note of notes) console.error(`${path}: ${note}`)
    const mono = toMono(audio)
    const heard = heardStrikes(mono, audio.sampleRateHz, { ...settings, isCoded: wasCoded({ name: path }) })
    const hits = cutHeard(audio, mono, heard, settings)
    const under = underLine(heard.strikes, lineOf(settings, heard.strikes), settings.minGapSeconds, audio.sampleRateHz)
    if (!settings.grid && hits.length > 0) console.error(`${path}: ${lineWords(under)}`)
    const moves = gridMoves(hits.map(({ onsetFrame, gridFrame }) => ({ frame: onsetFrame, gridFrame })), audio.sampleRateHz) // prettier-ignore
    if (moves)
      console.error(
        `${path}: ${moves.count} of ${hits.length} marks moved to the attack near them, by up to ${(moves.mostSeconds * 1000).toFixed(1)} ms.`,
      )
    if (hits.length === 0) console.error(`${path}: ${whyNone(audio)}`)
    if (given.options.json)
      console.log(JSON.stringify({ sampleRate: audio.sampleRateHz, frames: audio.channels[0].length, hits: hits.map(toJson) }))
    else for (const [i, hit] of hits.entries()) console.log(describe(hit, i, audio.sampleRateHz))
    if (typeof given.options.out !== 'string') return
    const width = String(hits.length).length
    const gainsDb = repair.gainsDb(hits)
    const made = hits.map((hit, i) => clipAudio(audio, clipOf(audio, hit, gainsDb[i], repair.repairs)))
    const peaks = made.map(peakOfAudio)
    const fit = choiceOption(given, 'fit', fits, 'together')
    const words = fitWords(peaks, fit)
    if (words) console.error(`${path}: ${words}`)
    const fitted = fitGains(peaks, fit)
    hits.forEach((hit, i) => {
      const onset = hit.onsetFrame - hit.startFrame
      const bytes = writeWav(scaled(made[i], fitted[i]), { bits: 24, cueFrames: onset > 0 ? [onset] : [] })
      writeBelow(given.options.out as string, `${stem(path)}-${String(i + 1).padStart(width, '0')}.wav`, bytes)
    })
  },
}

/** Why there is no hit, and what to do. */
function whyNone(audio: Audio): string {
  if (audio.channels.every((channel) => peakOf(channel) === 0)) return 'It is silent from end to end, so there is no hit in it.'
  return 'No strike stands out in it. A higher --sensitivity shows weaker ones; --slow finds what swells; --parts cuts it anyway.'
}

function settingsOf(given: Given): CutSettings {
  const has = (name: string) => given.options[name] !== undefined
  if (has('parts') && has('tempo')) throw new WrongUsage('--parts and --tempo are two ways to cut: name one.')
  for (const name of ['beats', 'first']) if (has(name) && !has('tempo')) throw new WrongUsage(`--${name} goes with --tempo.`)
  const tempoBpm = numberOption(given, 'tempo', 120, 20, 400)
  return {
    ...(has('sensitivity') ? {} : { findsLevel: true }),
    waterLine: waterLineOf(numberOption(given, 'sensitivity', 0.7, 0, 1)),
    minGapSeconds: numberOption(given, 'gap', 1000 * (given.options['in-time'] ? IN_TIME_GAP_SECONDS : USUAL_GAP_SECONDS), 5, 5000) / 1000,
    attack: given.options.slow ? 'slow' : 'fast',
    ...(given.options['in-time'] ? { inTime: true } : {}),
    ...(given.options['on-grid'] ? { marksStay: true } : {}),
    snap: choiceOption(given, 'snap', ['attack', 'up', 'down', 'none'] as const, 'attack'),
    ...(has('parts') ? { grid: { kind: 'parts', count: Math.round(numberOption(given, 'parts', 8, 1, 512)) } } : {}),
    ...(has('tempo')
      ? {
          grid: {
            kind: 'beats',
            tempoBpm,
            beats: numberOption(given, 'beats', 1, 1 / 16, 64),
            firstSeconds: numberOption(given, 'first', 0, 0, 36000),
          },
        }
      : {}),
  }
}

/** What is set on each clip that is written; gains are told once all hits are known. */
function repairsOf(given: Given) {
  const lowCutHz = given.options['low-cut'] === undefined ? undefined : numberOption(given, 'low-cut', 20, 10, 2000)
  const removeDc = given.options['remove-dc'] ? true : undefined
  const share = numberOption(given, 'even', 0, 0, 100) / 100
  const peakDb = given.options.peak === undefined ? undefined : numberOption(given, 'peak', -1, -60, 0)
  const repairs: Repairs | undefined =
    lowCutHz || removeDc ? { ...(lowCutHz ? { lowCutHz } : {}), ...(removeDc ? { removeDc } : {}) } : undefined
  return {
    repairs,
    gainsDb(hits: readonly Hit[]): number[] {
      const evened = evenGains(
        hits.map((hit) => hit.loudnessDb),
        share,
      )
      const highest = Math.max(...hits.map((hit, i) => hit.peakDb + evened[i]))
      const all = peakDb === undefined || !Number.isFinite(highest) ? 0 : peakDb - highest
      return evened.map((gainDb) => Math.max(-120, Math.min(60, gainDb + all)))
    },
  }
}

function clipOf(audio: Audio, { startFrame, endFrame, seconds }: Hit, gainDb: number, repairs?: Repairs): Clip {
  const whole = wholeClip('' as AudioHash, { frames: audio.channels[0].length, channels: audio.channels.length })
  const fades = { fadeInSeconds: EDGE_FADE_IN_SECONDS, fadeOutSeconds: Math.min(EDGE_FADE_OUT_SECONDS, seconds / 2) }
  return { ...whole, startFrame, endFrame, ...fades, gainDb, ...(repairs ? { repairs } : {}) }
}

/** JSON has no infinity: silence is the word. */
function decibels(db: number): number | 'silence' {
  return Number.isFinite(db) ? Number(db.toFixed(2)) : 'silence'
}

function toJson(hit: Hit) {
  const { startFrame, endFrame, onsetFrame, family, warnings } = hit
  return {
    startFrame,
    endFrame,
    onsetFrame,
    peakDb: decibels(hit.peakDb),
    loudnessDb: decibels(hit.loudnessDb),
    pitchHz: hit.pitch ? Number(hit.pitch.hz.toFixed(2)) : null,
    family,
    warnings,
    secondFrames: hit.secondFrames,
  }
}

function describe(hit: Hit, index: number, sampleRateHz: number): string {
  const time = (hit.onsetFrame / sampleRateHz).toFixed(3).padStart(9)
  const pitch = hit.pitch ? `${hit.pitch.hz.toFixed(1)} Hz` : 'unpitched'
  return `${String(index + 1).padStart(4)} ${time} s ${hit.seconds.toFixed(3)} s long, peak ${hit.peakDb.toFixed(1)} dB, ${pitch}, ${hit.family}${hit.warnings.length > 0 ? ` (${hit.warnings.join(', ')})` : ''}`
}
