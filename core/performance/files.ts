import { writeWav } from '../audio'
import type { Audio } from '../audio/audio'
import { fileName, uniqueNames, zipFiles } from '../ship'
import type { Kit, PadId, Performance } from '../kit'
import { padById, padSettings } from '../kit'
import { isHeard } from './edits'
import { startSecondsOf } from './timecode'

export type Bits = 16 | 24 | 32

/** A performance as a WAV file, with a marker at each strike that is heard; with a film it says when it begins on the film's clock. */
export function performanceWav(performance: Performance, audio: Audio, bits: Bits): Uint8Array<ArrayBuffer> {
  const { fromFrame } = performance
  const cueFrames = performance.events.flatMap((event) =>
    event.type === 'strike' && isHeard(performance, event) ? [event.frame - fromFrame] : [],
  )
  const start = startSecondsOf(performance)
  const broadcast =
    start === undefined
      ? {}
      : {
          broadcast: {
            description: performance.name,
            startFrame: Math.round(start * audio.sampleRateHz),
            madeAt: new Date(performance.playedAt),
          },
        }
  return writeWav(audio, { bits, cueFrames: [...new Set(cueFrames)], ...broadcast })
}

/** The pads that are heard in a performance, in the order in which they come first. */
export function padsHeard(performance: Performance): PadId[] {
  return [...new Set(performance.events.flatMap((event) => (event.type === 'strike' && isHeard(performance, event) ? [event.padId] : [])))]
}

/** A name for a file of each pad, told apart where two are alike. */
export function padFileNames(kit: Kit, padIds: readonly PadId[]): string[] {
  const unique = uniqueNames()
  return padIds.map((padId) => {
    const pad = padById(kit, padId)
    return unique(fileName((pad && padSettings(kit, pad).name) || 'Pad'))
  })
}

/** Files of one folder in a zip. */
export function zipOf(files: readonly { readonly name: string; readonly bytes: Uint8Array }[]): Uint8Array<ArrayBuffer> {
  return zipFiles(files.map(({ name, bytes }) => ({ path: name, bytes })))
}

/** Renderings of one strike, numbered with as many digits as the last one needs. */
export function numbered(name: string, audios: readonly Audio[], bits: Bits): { readonly name: string; readonly bytes: Uint8Array }[] {
  const digits = Math.max(2, String(audios.length).length)
  return audios.map((audio, i) => ({ name: `${name} ${String(i + 1).padStart(digits, '0')}.wav`, bytes: writeWav(audio, { bits }) }))
}
