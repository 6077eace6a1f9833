import type { Audio } from '@heliaster/core/audio'
import { readAudioFile } from '@heliaster/core/decode'
import type { AudioHash, Kit, PadId, Performance } from '@heliaster/core/kit'
import { numbered, padFileNames, padsHeard, performanceWav, renderDraws, renderPerformance, zipOf } from '@heliaster/core/performance'
import type { Bits, Resounding, ToDraw } from '@heliaster/core/performance'
import { bundleFiles, castStrikes, readBundle, writeOneShots, writeSfz, writeStems, zipFiles } from '@heliaster/core/ship'
import type { Bundle, CastOptions, CastStrike, Fit, Shipment, StemOptions } from '@heliaster/core/ship'
import { transfer } from 'comlink'

export interface Shipped {
  readonly zip: ArrayBuffer
  readonly files: { readonly path: string; readonly name?: string; readonly bytes: number }[]
  readonly notes: string[]
  /** Whether files had to be lowered to fit. */
  readonly isTooLoud: boolean
}

/** What is asked of a performance; `answers` says which pad of `kit` sounds for one that was played. */
export interface ToPerform {
  readonly performance: Performance
  readonly kits: ReadonlyMap<AudioHash, Kit>
  readonly kit?: Kit
  readonly answers?: readonly (readonly [PadId, PadId | undefined])[]
  readonly only?: readonly PadId[]
  readonly seed?: number
}

export interface Performed {
  readonly audio: Audio
  /** The pad that sounded for each strike, and where: frames from the beginning. */
  readonly fell: { readonly frame: number; readonly padId: PadId; readonly band: number; readonly turn: number }[]
}

/** Audio that performances were sounded with last stays, so many samples of it. */
const MOST_SAMPLES = 16 << 20
const brought = new Map<AudioHash, Audio>()

/** Lets go of what is too much, what came first first; `needed` stays. */
function letGoOf(needed: ReadonlySet<AudioHash>): void {
  const samplesOf = ({ channels }: Audio) => channels.length * (channels[0]?.length ?? 0)
  let samples = [...brought.values()].reduce((sum, audio) => sum + samplesOf(audio), 0)
  for (const [hash, audio] of brought) {
    if (samples <= MOST_SAMPLES) return
    if (needed.has(hash)) continue
    samples -= samplesOf(audio)
    brought.delete(hash)
  }
}

function givenFor({ kits, kit, answers, only, seed }: ToPerform): Resounding {
  const byPad = answers && new Map(answers)
  return {
    kitOf: (hash) => kits.get(hash),
    audioOf: (hash) => brought.get(hash),
    kit,
    padFor: byPad && ((padId) => byPad.get(padId)),
    only: only && new Set(only),
    seed,
  }
}

function lengthened({ sampleRateHz, channels }: Audio, frames: number): Audio {
  const longer = (channel: Float32Array) => {
    const all = new Float32Array(frames)
    all.set(channel)
    return all
  }
  return { sampleRateHz, channels: channels.map(longer) }
}

export type ShipForm = 'sfz' | 'wav' | 'bundle'

/** A bundle that is being opened, until all of it has been taken over. */
let opened: Bundle | undefined

async function decodedFrom(audio: ReadonlyMap<AudioHash, ArrayBuffer>): Promise<(hash: AudioHash) => Audio | undefined> {
  const decoded = new Map<AudioHash, Audio>()
  for (const [hash, bytes] of audio) {
    const read = await readAudioFile(new Uint8Array(bytes))
    if (read.ok) decoded.set(hash, read.file.audio)
  }
  return (hash) => decoded.get(hash)
}

/** Writing and opening what leaves, away from the page. */
export const work = {
  async write(kit: Kit, form: ShipForm, audio: Map<AudioHash, ArrayBuffer>, fit: Fit): Promise<Shipped> {
    if (form === 'bundle') return handedOver({ files: bundleFiles(kit, (hash) => bytesOf(audio, hash)), notes: [], isTooLoud: false })
    const audioOf = await decodedFrom(audio)
    return handedOver(form === 'sfz' ? writeSfz(kit, audioOf) : writeOneShots(kit, audioOf, fit))
  },
  /** A groove or song as stems. */
  async stems(kit: Kit, options: Omit<StemOptions, 'onDone'>, audio: Map<AudioHash, ArrayBuffer>): Promise<Shipped> {
    const shipment = writeStems(kit, options, await decodedFrom(audio))
    return handedOver(shipment ?? { files: [], notes: [], isTooLoud: false })
  },
  /** Strikes of a pad as they sound; what they need was brought before. */
  cast(kit: Kit, padId: PadId, options: CastOptions): CastStrike[] {
    const strikes = castStrikes(kit, padId, options, (hash) => brought.get(hash))
    return transfer(
      strikes,
      strikes.flatMap(({ audio }) => audio.channels.map(({ buffer }) => buffer as ArrayBuffer)),
    )
  },
  open(
    bytes: ArrayBuffer,
  ): { readonly ok: true; readonly kit: Kit; readonly hashes: readonly AudioHash[] } | { ok: false; message: string } {
    const result = readBundle(new Uint8Array(bytes))
    if (!result.ok) return result
    opened = result.bundle
    return { ok: true, kit: opened.kit, hashes: opened.hashes }
  },
  /** One file of the bundle that was opened last; nothing where it is not in it, or damaged. */
  take(hash: AudioHash): ArrayBuffer | undefined {
    const bytes = opened?.read(hash)?.slice().buffer
    return bytes && transfer(bytes, [bytes])
  },
  close(): void {
    opened = undefined
  },
  /** Of the audio that a performance needs, what is to be brought first. */
  lacking(hashes: readonly AudioHash[]): AudioHash[] {
    letGoOf(new Set(hashes))
    return hashes.filter((hash) => !brought.has(hash))
  },
  async bring(hash: AudioHash, bytes: ArrayBuffer): Promise<void> {
    const read = await readAudioFile(new Uint8Array(bytes))
    if (read.ok) brought.set(hash, read.file.audio)
  },
  perform(asked: ToPerform): Performed {
    const fell: { frame: number; padId: PadId; band: number; turn: number }[] = []
    const audio = renderPerformance(asked.performance, {
      ...givenFor(asked),
      onRecord: ({ band, turn, voices }, frame, padId) => {
        if (padId && voices > 0) fell.push({ frame, padId, band, turn })
      },
    })
    return transfer(
      { audio, fell },
      audio.channels.map((channel) => channel.buffer as ArrayBuffer),
    )
  },
  /** A performance as one WAV file. */
  performedWav(asked: ToPerform, bits: Bits): ArrayBuffer {
    const { buffer } = performanceWav(asked.performance, renderPerformance(asked.performance, givenFor(asked)), bits)
    return transfer(buffer, [buffer])
  },
  /** The same with a file for each pad that was played, all of one length, in a zip. */
  performedPads(asked: ToPerform, named: Kit, bits: Bits): ArrayBuffer {
    const padIds = padsHeard(asked.performance)
    const names = padFileNames(named, padIds)
    const audios = padIds.map((padId) => renderPerformance(asked.performance, { ...givenFor(asked), only: new Set([padId]) }))
    const longest = Math.max(...audios.map(({ channels }) => channels[0].length))
    const files = audios.map((audio, i) => ({
      name: `${names[i]}.wav`,
      bytes: performanceWav(asked.performance, lengthened(audio, longest), bits),
    }))
    const { buffer } = zipOf(files)
    return transfer(buffer, [buffer])
  },
  /** One strike as its pad plays it so many times, numbered, in a zip. */
  draws(asked: Omit<ToDraw, 'audioOf'>, name: string, bits: Bits): ArrayBuffer {
    const audios = renderDraws({ ...asked, audioOf: (hash) => brought.get(hash) })
    const { buffer } = zipOf(numbered(name, audios, bits))
    return transfer(buffer, [buffer])
  },
}
export type ShipWork = typeof work

function handedOver({ files, notes, isTooLoud }: Shipment): Shipped {
  const zip = zipFiles(files)
  const listed = files.map(({ path, name, bytes }) => ({ path, ...(name ? { name } : {}), bytes: bytes.length }))
  return transfer({ zip: zip.buffer, files: listed, notes, isTooLoud }, [zip.buffer])
}

function bytesOf(audio: Map<AudioHash, ArrayBuffer>, hash: AudioHash): Uint8Array | undefined {
  const bytes = audio.get(hash)
  return bytes && new Uint8Array(bytes)
}
