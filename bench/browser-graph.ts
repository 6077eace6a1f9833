export interface GraphTask {
  readonly voices: number
  readonly rate: number
  readonly seconds: number
  readonly clips: number
  readonly clipFrames: number
  readonly channels: number
  readonly strikeEvery: number
  readonly work: {
    attackSeconds: number
    endSeconds: number
    fromCents: number
    toCents: number
    fallSeconds: number
    cutoffHz: number
    filterFromCents: number
    gain: number
  }
  /** Renders every voice alone first, and compares their sum with the mix. */
  readonly check: boolean
}

/**
 * Runs in the page, and so stands alone: the same voices from the browser's own nodes, rendered offline. Returns the
 * seconds that rendering took, or -1 when a voice was not heard.
 */
export async function renderGraph(task: GraphTask): Promise<number> {
  const { voices, rate, seconds, clips, clipFrames, channels, strikeEvery, work } = task
  const store = globalThis as unknown as { clipBuffers?: AudioBuffer[] }
  if (store.clipBuffers?.[0].numberOfChannels !== channels) {
    store.clipBuffers = []
    for (let index = 0; index < clips; index++) {
      const buffer = new AudioBuffer({ length: clipFrames, numberOfChannels: channels, sampleRate: rate })
      let state = (index + 1) * 2654435761
      for (let channel = 0; channel < channels; channel++) {
        const samples = buffer.getChannelData(channel)
        for (let i = 0; i < clipFrames; i++) {
          state = (Math.imul(state, 1664525) + 1013904223) >>> 0
          samples[i] = state / 2147483648 - 1
        }
      }
      store.clipBuffers.push(buffer)
    }
  }
  const buffers = store.clipBuffers!
  const build = (length: number, from: number, to: number): OfflineAudioContext => {
    const context = new OfflineAudioContext(2, length, rate)
    for (let frame = 0, turn = 0; frame < length; frame += strikeEvery, turn++)
      for (let voice = from; voice < to; voice++) {
        const at = frame / rate
        const source = new AudioBufferSourceNode(context, { buffer: buffers[(turn * voices + voice) % clips] })
        source.detune.setValueAtTime(work.fromCents, at)
        source.detune.linearRampToValueAtTime(work.toCents, at + work.fallSeconds)
        const filter = new BiquadFilterNode(context, { type: 'lowpass', frequency: work.cutoffHz, Q: 1 })
        filter.detune.setValueAtTime(work.filterFromCents, at)
        filter.detune.linearRampToValueAtTime(0, at + work.endSeconds)
        const gain = new GainNode(context, { gain: 0 })
        gain.gain.setValueAtTime(0, at)
        gain.gain.linearRampToValueAtTime(work.gain, at + work.attackSeconds)
        gain.gain.linearRampToValueAtTime(0, at + work.endSeconds)
        const pan = new StereoPannerNode(context, { pan: (Math.floor(voice / 2) / (voices / 2)) * 2 - 1 })
        source.connect(filter).connect(gain).connect(pan).connect(context.destination)
        source.start(at)
        source.stop(at + work.endSeconds)
      }
    return context
  }
  if (task.check) {
    const length = 20000
    const mix = (await build(length, 0, voices).startRendering()).getChannelData(0)
    const sum = new Float64Array(length)
    for (let voice = 0; voice < voices; voice++) {
      const alone = await build(length, voice, voice + 1).startRendering()
      let peak = 0
      for (let channel = 0; channel < 2; channel++)
        for (const sample of alone.getChannelData(channel)) peak = Math.max(peak, Math.abs(sample))
      if (peak < work.gain * 0.1) return -1
      const left = alone.getChannelData(0)
      for (let i = 0; i < length; i++) sum[i] += left[i]
    }
    for (let i = 0; i < length; i++) if (Math.abs(sum[i] - mix[i]) > 1e-4) return -1
  }
  const context = build(seconds * rate, 0, voices)
  const started = performance.now()
  await context.startRendering()
  return (performance.now() - started) / 1000
}
