import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import type { ChannelPlan, TakeSettings } from '@heliaster/core/record'
import { proxy, transfer, wrap } from 'comlink'
import type { Remote } from 'comlink'
import { z } from 'zod'
import { createStore } from 'zustand/vanilla'

import type { ToRecorder } from '../../../core/engine/hosts/messages'
import { device, sources } from '../../documents'
import { cutToBeginWith } from '../../documents/last-cut'
import { makeId } from '../../documents/make-id'
import { deviceSettings } from '../../ui/device/device-settings'
import { measureLater } from '../files/measure-later'
import { openInput } from './inputs'
import type { InputKind, OpenInput } from './inputs'
import type { FinishedTake, JournalWork, TakeReport } from './journal-work'
import { clearLive, takeReport } from './live'
import { strikesOf, watchStrikes } from './strike-log'

/** What people set once and leave: kept on this device. */
export interface RecorderSettings {
  readonly input: InputKind
  readonly deviceId?: string
  readonly channels: ChannelPlan
  readonly waitsForSound: boolean
  readonly thresholdDb: number
  /** Seconds of silence that end a take; 0 for never. */
  readonly silenceSeconds: number
  /** Whether the input may be open while nothing is recorded, for the level and the second before. */
  readonly listens: boolean
}

export type RecorderState = 'closed' | 'opening' | 'armed' | 'waiting' | 'recording' | 'keeping'

export interface Recorder {
  readonly state: RecorderState
  readonly settings: RecorderSettings
  readonly label?: string
  /** Why there is no input. */
  readonly problem?: string
  /** What became of the last take, where that needs words. */
  readonly news?: { readonly words: string }
  /** False where this browser cannot write while it records. */
  readonly onDisk: boolean
}

const KEY = 'heliaster-recorder'
const PRE_ROLL_SECONDS = 1
const HYSTERESIS_DB = 8
const defaults: RecorderSettings = {
  input: 'microphone',
  channels: 'stereo',
  waitsForSound: false,
  thresholdDb: -36,
  silenceSeconds: 0,
  listens: true,
}

const settingsSchema = z.object({
  input: z.enum(['microphone', 'practice', 'pads']),
  deviceId: z.string().optional(),
  channels: z.enum(['mono', 'stereo', 'left', 'right']),
  waitsForSound: z.boolean(),
  thresholdDb: z.number().min(-120).max(0),
  silenceSeconds: z.number().min(0).max(600),
  listens: z.boolean(),
})
const kept = deviceSettings(KEY, settingsSchema, defaults)

function savedSettings(): RecorderSettings {
  const saved = kept.getState()
  return saved.input === 'pads' ? { ...saved, input: 'microphone' } : saved
}

export const recorder = createStore<Recorder>(() => ({ state: 'closed', settings: savedSettings(), onDisk: true }))

let worker: Remote<JournalWork> | undefined
let input: OpenInput | undefined
let node: AudioWorkletNode | undefined
let nextFlush = 1
/** What happens with the take that is running, told when it starts. */
let onTaken: ((source: Source) => void) | undefined
/** Changes with every opening, so that an earlier one that comes late finds itself outdated. */
let opening = 0
/** What became of the newest opening. */
let newest: Promise<boolean> = Promise.resolve(false)
/** Whether the input is led into what listens. */
let isConnected = false

export function journalWork(): Remote<JournalWork> {
  worker ??= wrap<JournalWork>(new Worker(new URL('./journal.worker', window.location.href)))
  return worker
}

export function changeRecorder(changes: Partial<RecorderSettings>): void {
  const settings = { ...recorder.getState().settings, ...changes }
  kept.setState(settings, true)
  recorder.setState({ settings, problem: undefined })
  const { state } = recorder.getState()
  if (state === 'armed' || state === 'opening') void reopen()
}

/** Opens the input and listens: the level is seen, and the last second is there when the button is pressed. */
export function arm(): Promise<boolean> {
  return (newest = open())
}

/** The same with other settings: what is open, or being opened, is let go of first. */
function reopen(): Promise<boolean> {
  return (newest = (async () => {
    const mine = ++opening
    recorder.setState({ state: 'opening' })
    await closeInput()
    return mine === opening && open()
  })())
}

/** Waits until the input is open, through whatever is being opened and opened anew. */
async function whenArmed(): Promise<boolean> {
  if (recorder.getState().state === 'closed') void arm()
  for (let last; last !== newest;) await (last = newest)
  return newest
}

async function open(): Promise<boolean> {
  const mine = ++opening
  const { settings } = recorder.getState()
  recorder.setState({ state: 'opening', problem: undefined })
  try {
    const opened = await openInput(settings.input, settings.deviceId, (reason) => void inputEnded(reason))
    if (mine !== opening) {
      await opened.close()
      return false
    }
    input = opened
    const listening = new AudioWorkletNode(opened.context, 'heliaster-recorder', { numberOfOutputs: 1 })
    node = listening
    const { port1, port2 } = new MessageChannel()
    tell({ type: 'port', port: port1 }, [port1])
    clearLive()
    const { onDisk } = await journalWork().listen(
      transfer(port2, [port2]),
      takeSettings(settings, opened.context.sampleRate),
      proxy(onReport),
    )
    if (mine !== opening) return false // let go of meanwhile
    opened.node.connect(listening, opened.output)
    listening.connect(opened.context.destination) // silent; an unconnected worklet may not be run
    isConnected = true
    recorder.setState({ state: 'armed', label: opened.label, onDisk })
    return true
  } catch (error) {
    if (mine === opening) recorder.setState({ state: 'closed', problem: error instanceof Error ? error.message : String(error) })
    return false
  }
}

function takeSettings(
  { input: kind, channels, waitsForSound, thresholdDb, silenceSeconds }: RecorderSettings,
  sampleRateHz: number,
): TakeSettings {
  const gate = { openDb: thresholdDb, closeDb: thresholdDb - HYSTERESIS_DB, holdSeconds: silenceSeconds || 1 }
  const common = { sampleRateHz, preRollSeconds: PRE_ROLL_SECONDS }
  if (kind === 'pads') return { ...common, preRollSeconds: 0, channels: 'stereo', bits: 32 }
  if (!waitsForSound) return { ...common, channels, bits: 24 }
  return { ...common, channels, bits: 24, gate, goesOn: silenceSeconds === 0 }
}

function tell(message: ToRecorder, moved: Transferable[] = []): void {
  node?.port.postMessage(message, moved)
}

/** Lets go of the input. A take that is running is not touched. */
export async function disarm(): Promise<void> {
  const { state } = recorder.getState()
  if (state !== 'armed' && state !== 'opening') return
  opening++
  await closeInput()
  recorder.setState({ state: 'closed', label: undefined })
}

async function closeInput(): Promise<void> {
  const open = input
  const listening = node
  input = undefined
  node = undefined
  if (open && listening && isConnected) {
    open.node.disconnect(listening)
    listening.disconnect()
  }
  isConnected = false
  await journalWork().letGo()
  await open?.close()
}

/** Starts at once, with the second before it where the input was open. `taken` hears of what was recorded. */
export async function startTake(taken: (source: Source) => void): Promise<void> {
  const { state } = recorder.getState()
  if (state === 'waiting' || state === 'recording' || state === 'keeping') return
  if (!(await whenArmed()) || recorder.getState().state !== 'armed') return // another press was quicker
  const { context } = input!
  onTaken = taken
  const { settings } = recorder.getState()
  if (settings.input === 'pads') watchStrikes()
  const isGated = settings.waitsForSound && settings.input !== 'pads'
  recorder.setState({ state: isGated ? 'waiting' : 'recording', problem: undefined })
  await journalWork().begin(Math.round(context.currentTime * context.sampleRate))
}

/** Ends the take, keeps it, and listens on. */
export async function stopTake(): Promise<Source | undefined> {
  const { state } = recorder.getState()
  if (state !== 'recording' && state !== 'waiting') return undefined
  recorder.setState({ state: 'keeping' })
  const isPads = recorder.getState().settings.input === 'pads'
  const name = freeName(isPads ? 'Taken back' : 'Recording')
  try {
    const id = nextFlush++
    const last = journalWork().whenFlushed(id)
    tell({ type: 'flush', id })
    await last
    const finished = await journalWork().finish(name)
    await closeInput()
    const source = finished && (await listTake(finished, name, isPads))
    recorder.setState({ state: 'closed' })
    tellNews(finished ? lossOf(finished) : nothingCame)
    if (source) onTaken?.(source)
    return source
  } catch (error) {
    await closeInput()
    recorder.setState({ state: 'closed' })
    tellNews(keepFault(error))
    return undefined
  }
}

function tellNews(words: string | undefined): void {
  if (words) recorder.setState({ news: { words } })
}

const nothingCame = 'Nothing came in, so nothing was recorded. Check the input and try again.'

function lossOf({ lostFrames, info }: FinishedTake): string | undefined {
  if (lostFrames === 0) return undefined
  return `This device lost ${((1000 * lostFrames) / info.sampleRateHz).toFixed(0)} ms while recording; silence stands in their place. Close other programs before the next take.`
}

function keepFault(error: unknown): string {
  const text = error instanceof Error ? `${error.name} ${error.message}` : String(error)
  if (/quota/i.test(text))
    return 'There is no room on this device to put the recording on the list. It is safe on the disk: free some room and reload the page, and it is offered again.'
  return 'The recording is on this device’s disk but could not be put on the list. Reload the page, and it is offered again.'
}

async function listTake(finished: FinishedTake, name: string, isPads: boolean): Promise<Source> {
  const { hash, info, journal, startFrame } = finished
  const given: Partial<Source> = { addedAt: Date.now(), origin: isPads ? 'takenBack' : 'recorded', cut: cutToBeginWith(name, info) }
  const source = createSource(makeId, hash, info, name, isPads ? { ...given, strikes: strikesOf(startFrame, info.frames) } : given)
  // It is on the list at once; its journal goes when the list is written, and is the safe copy until then.
  void sources.create(source).then(() => (journal ? journalWork().forget(journal) : undefined))
  device.filesKept()
  measureLater(source)
  return source
}

function onReport(report: TakeReport): void {
  takeReport(report)
  const { state } = recorder.getState()
  if (report.state === 'running' && state === 'waiting') recorder.setState({ state: 'recording' })
  if (report.state === 'ended' && state === 'recording') void stopTake()
  if (report.state === 'full' && state === 'recording')
    void stopTake().then(() => tellNews('There is no more room on this device, so recording stopped. Everything until then is kept.'))
}

async function inputEnded(reason: string): Promise<void> {
  const { state } = recorder.getState()
  if (state === 'recording' || state === 'waiting') await stopTake()
  else await disarm()
  recorder.setState({ problem: reason, news: { words: reason } })
}

export function freeName(stem: string): string {
  const taken = new Set(Object.values(sources.store.getState().entries).map((entry) => entry.doc.name))
  let n = 1
  while (taken.has(`${stem} ${n}`)) n++
  return `${stem} ${n}`
}
