import { coreWork } from '../workers/workers'

/** A file is heard by itself, past the engine: it is no sound of the application yet, and nothing of it is kept. */
interface Listening {
  readonly context: AudioContext
  readonly gain: GainNode
  readonly meter: AnalyserNode
  playing?: AudioBufferSourceNode
}

let listening: Listening | undefined
/** The file that was asked for last: one that is decoded later than another was asked for is not heard. */
let wanted: File | undefined

function begin(): Listening {
  if (listening) return listening
  const context = new AudioContext()
  const gain = context.createGain()
  const meter = context.createAnalyser()
  meter.fftSize = 2048
  gain.connect(meter).connect(context.destination)
  return (listening = { context, gain, meter })
}

/** Sounds a file that is not kept, at a level in dB; resolves with why not, where it cannot be read, and with nothing else. */
export async function hearFile(file: File, gainDb: number, onEnd: () => void): Promise<string | undefined> {
  stopFile()
  wanted = file
  const { context, gain } = begin()
  void context.resume()
  setFileLevel(gainDb)
  const read = await coreWork().decode(file)
  if (wanted !== file) return undefined
  if (!read.ok) return read.message
  const { channels, sampleRateHz } = read.decoded.audio
  const frames = channels[0]?.length ?? 0
  if (frames === 0) return 'There is no sound in it.'
  const buffer = context.createBuffer(channels.length, frames, sampleRateHz)
  channels.forEach((samples, i) => buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, i))
  const playing = context.createBufferSource()
  playing.buffer = buffer
  playing.connect(gain)
  playing.onended = () => {
    if (wanted === file) onEnd()
  }
  listening!.playing = playing
  playing.start()
  return undefined
}

export function setFileLevel(gainDb: number): void {
  if (listening) listening.gain.gain.value = 10 ** (gainDb / 20)
}

export function stopFile(): void {
  wanted = undefined
  listening?.playing?.stop()
  if (listening) delete listening.playing
}

const window = new Float32Array(2048)

/** The highest sample of what is heard now, 0..1 and above. */
export function fileLevel(): number {
  if (!listening?.playing) return 0
  listening.meter.getFloatTimeDomainData(window)
  return window.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)
}
