import { writeWav } from '@heliaster/core/audio'
import { cutRecording, startFrameOf, waterLineOf } from '@heliaster/core/cut'
import type { Hit } from '@heliaster/core/cut'

import { readAudioFile, stem, writeBelow } from '../files'
import { numberOption } from '../main'
import type { Command } from '../main'

const MIN_GAP_SECONDS = 0.06

/** Finds the hits of a recording, prints them, and writes each as a WAV file when a folder is named. */
export const cut: Command = {
  options: { sensitivity: { type: 'string' }, json: { type: 'boolean' }, out: { type: 'string' } },
  paths: [1, 1],
  async run(given) {
    const [path] = given.paths
    const waterLine = waterLineOf(numberOption(given, 'sensitivity', 0.7, 0, 1))
    const { audio, notes } = await readAudioFile(path)
    for (const note of notes) console.error(`${path}: ${note}`)
    const hits = cutRecording(audio, waterLine, MIN_GAP_SECONDS)
    if (given.options.json)
      console.log(JSON.stringify({ sampleRate: audio.sampleRateHz, frames: audio.channels[0].length, hits: hits.map(toJson) }))
    else for (const [i, hit] of hits.entries()) console.log(describe(hit, i, audio.sampleRateHz))
    if (typeof given.options.out !== 'string') return
    const width = String(hits.length).length
    hits.forEach((hit, i) => {
      const channels = audio.channels.map((channel) => channel.slice(hit.startFrame, hit.endFrame))
      const onset = hit.onsetFrame - startFrameOf(hit.onsetFrame, audio.sampleRateHz)
      const bytes = writeWav({ sampleRateHz: audio.sampleRateHz, channels }, { bits: 24, cueFrames: onset > 0 ? [onset] : [] })
      writeBelow(given.options.out as string, `${stem(path)}-${String(i + 1).padStart(width, '0')}.wav`, bytes)
    })
  },
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
  }
}

function describe(hit: Hit, index: number, sampleRateHz: number): string {
  const time = (hit.onsetFrame / sampleRateHz).toFixed(3).padStart(9)
  const pitch = hit.pitch ? `${hit.pitch.hz.toFixed(1)} Hz` : 'unpitched'
  return `${String(index + 1).padStart(4)} ${time} s ${hit.seconds.toFixed(3)} s long, peak ${hit.peakDb.toFixed(1)} dB, ${pitch}, ${hit.family}${hit.warnings.length > 0 ? ` (${hit.warnings.join(', ')})` : ''}`
}
