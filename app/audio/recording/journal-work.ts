import { peakOf } from '@heliaster/core/audio'
import { createHitCounter } from '@heliaster/core/cut'
import { createTake, wavHeader } from '@heliaster/core/record'
import type { Take, TakeSettings, TakeState, WavForm } from '@heliaster/core/record'

import type { FromRecorder } from '../../../core/engine/hosts/messages'
import { createJournalFile, journalBlob, listLeftTakes, removeJournal } from './journal-files'
import type { JournalFile, LeftTake } from './journal-files'
import { keepJournal } from './keep-journal'
import type { KeptTake } from './keep-journal'

/** How the input and the take stand, told to the page after each piece. */
export interface TakeReport {
  readonly state: TakeState | 'full'
  /** Peak of each channel of the newest piece. */
  readonly peaks: readonly number[]
  /** Places where the top was reached since the input was opened. */
  readonly clips: number
  readonly pieceSeconds: number
  readonly seconds: number
  /** Seconds of the hits found in the take so far. */
  readonly hits: readonly number[]
}

export interface FinishedTake extends KeptTake {
  readonly journal?: string
  readonly lostFrames: number
  /** The frame of the input at which the recording's first frame was heard. */
  readonly startFrame: number
}

const WRITE_SECONDS = 0.1
const FLUSH_SECONDS = 0.25
const CLIPPED = 0.999
const ROOM_CHECK_SECONDS = 1
/** Room that is left over once a take has been put on the list, which takes as much again as the take itself. */
const SPARE_BYTES = 1_000_000

interface Session {
  readonly settings: TakeSettings
  readonly take: Take
  readonly writer: Writer
  report(report: TakeReport): void
  clips: number
  isFull: boolean
  hits: readonly number[]
  peaks: readonly number[]
  pieceSeconds: number
  roomCheckedAt: number
}

interface Writer {
  form?: WavForm
  readonly journal?: JournalFile
  put(bytes: Uint8Array<ArrayBuffer>): void
  /** Everything to the disk, sealed; gives the file. */
  finish(): Promise<Blob>
}

let session: Session | undefined
/** Changes with every opening and letting go, so that one that comes late finds itself outdated. */
let listens = 0
let flushed: { id: number; resolve(): void } | undefined

/** Writes what an input sends straight to the disk, past the page, and keeps what is recorded. */
export const work = {
  /** Listens to an input. What was armed before is let go. */
  async listen(port: MessagePort, settings: TakeSettings, report: (report: TakeReport) => void): Promise<{ onDisk: boolean }> {
    await letGo()
    const mine = listens
    const writer = await createWriter(settings)
    if (mine !== listens) {
      await discard(writer) // another input was opened, or this one let go of, meanwhile
      return { onDisk: writer.journal !== undefined }
    }
    const counter = createHitCounter(settings.sampleRateHz)
    const opened: Session = {
      settings,
      writer,
      report,
      clips: 0,
      isFull: false,
      hits: [],
      peaks: [],
      pieceSeconds: 0,
      roomCheckedAt: 0,
      take: createTake(settings, {
        open: (form) => {
          writer.form = form
          writer.put(wavHeader(form, 0))
        },
        write: (bytes) => writer.put(bytes),
        heard: ([first]) => void (opened.hits = counter.take(first)),
      }),
    }
    session = opened
    port.onmessage = ({ data }: MessageEvent<FromRecorder>) => {
      if (data.type === 'flushed') {
        if (flushed?.id === data.id) flushed.resolve()
      } else if (session === opened) takePiece(opened, data.firstFrame, data.channels)
    }
    return { onDisk: writer.journal !== undefined }
  },
  begin(pressedFrame: number): void {
    session?.take.begin(pressedFrame)
  },
  /** Waits until the input has sent its last piece before the stop. */
  whenFlushed: (id: number) => Promise.race([new Promise<void>((resolve) => (flushed = { id, resolve })), pause(600)]),
  /** Ends the take and stores it. Undefined when nothing was recorded. */
  async finish(name: string): Promise<FinishedTake | undefined> {
    const ended = session
    session = undefined
    if (!ended || ended.take.frames === 0) {
      if (ended) await discard(ended.writer)
      return undefined
    }
    const file = await ended.writer.finish()
    const kept = await keepJournal(file, `${name}.wav`)
    return { ...kept, journal: ended.writer.journal?.name, lostFrames: ended.take.lostFrames, startFrame: ended.take.startFrame ?? 0 }
  },
  letGo,
  left: (): Promise<LeftTake[]> => listLeftTakes(),
  keepLeft: async (journal: string, name: string): Promise<KeptTake> => keepJournal(await journalBlob(journal), `${name}.wav`),
  forget: (journal: string): Promise<void> => removeJournal(journal),
}
export type JournalWork = typeof work

async function letGo(): Promise<void> {
  listens++
  const armed = session
  session = undefined
  if (armed && armed.take.frames === 0) await discard(armed.writer)
}

async function discard(writer: Writer): Promise<void> {
  if (!writer.journal) return
  writer.journal.close({ sampleRateHz: 48000, channels: 1, bits: 24 })
  await removeJournal(writer.journal.name)
}

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms))
}

function takePiece(at: Session, firstFrame: number, channels: Float32Array[]): void {
  if (at.isFull) return
  const { take, settings } = at
  try {
    take.piece(firstFrame, channels)
  } catch {
    at.isFull = true // the disk took no more; what it has is kept
  }
  at.clips += channels.reduce((sum, channel) => sum + clipsIn(channel), 0)
  at.peaks = channels.slice(0, 2).map((channel) => peakOf(channel))
  at.pieceSeconds = channels[0].length / settings.sampleRateHz
  tell(at)
  const seconds = take.frames / settings.sampleRateHz
  if (seconds - at.roomCheckedAt >= ROOM_CHECK_SECONDS) {
    at.roomCheckedAt = seconds
    void checkRoom(at)
  }
}

function tell({ report, take, settings, isFull, peaks, clips, pieceSeconds, hits }: Session): void {
  report({ state: isFull ? 'full' : take.state, peaks, clips, pieceSeconds, seconds: take.frames / settings.sampleRateHz, hits })
}

/** Stops a take while there is still room to put it on the list. */
async function checkRoom(at: Session): Promise<void> {
  const { quota, usage } = await navigator.storage.estimate()
  if (quota === undefined || usage === undefined || at.isFull) return
  const bytes = at.take.frames * (at.writer.form?.channels ?? 1) * (at.settings.bits / 8)
  if (quota - usage > bytes + SPARE_BYTES) return
  at.isFull = true
  tell(at)
}

/** Places where a channel reaches the top: runs of full samples, each counted once. */
function clipsIn(channel: Float32Array): number {
  let count = 0
  let inside = false
  for (let i = 0; i < channel.length; i++) {
    const full = Math.abs(channel[i]) >= CLIPPED
    if (full && !inside) count++
    inside = full
  }
  return count
}

/** A writer onto the disk where the browser has one for pages, else into memory. */
async function createWriter({ sampleRateHz, bits }: TakeSettings): Promise<Writer> {
  const journal = await createJournalFile().catch(() => undefined)
  const parts: Uint8Array<ArrayBuffer>[] = []
  let waitingBytes = 0
  let unflushedBytes = 0
  const inMemory: Uint8Array<ArrayBuffer>[] = []
  const secondBytes = () => (sampleRateHz * (writer.form?.channels ?? 1) * bits) / 8
  const writeOut = () => {
    const joined = new Uint8Array(waitingBytes)
    let at = 0
    for (const part of parts.splice(0)) {
      joined.set(part, at)
      at += part.length
    }
    waitingBytes = 0
    if (!journal) inMemory.push(joined)
    else journal.append(joined)
    unflushedBytes += joined.length
    if (journal && unflushedBytes >= FLUSH_SECONDS * secondBytes()) {
      journal.flush()
      unflushedBytes = 0
    }
  }
  const writer: Writer = {
    journal,
    put(bytes) {
      parts.push(bytes)
      waitingBytes += bytes.length
      if (waitingBytes >= WRITE_SECONDS * secondBytes()) writeOut()
    },
    async finish() {
      try {
        if (waitingBytes > 0) writeOut()
      } catch {
        // a full disk keeps what it has
      }
      if (journal) {
        journal.close(writer.form!)
        return journalBlob(journal.name)
      }
      const blob = new Blob(inMemory)
      const frames = (blob.size - 44) / ((writer.form!.channels * bits) / 8)
      return new Blob([wavHeader(writer.form!, frames), blob.slice(44)])
    },
  }
  return writer
}
