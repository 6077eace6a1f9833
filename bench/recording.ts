import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import type { Page } from '@playwright/test'

import { writeWav } from '../core/audio'
import { newKit, openApp } from './app-page'
import type { Figure } from './figure'

/** Ten, unless a shorter look is asked for. */
const MINUTES = Number(process.env.BENCH_MINUTES ?? 10)
const RATE = 48000
/** The engine as the server gives it, and beside it for a while one with a probe before the recorder. */
const ENGINE = 'app/dist/engine'
const PROBED = 'engine-probed.mjs'

/**
 * Minutes of numbered noise through the fake microphone, while the page is kept busy: what is stored against what
 * came in at the recorder's worklet, sample by sample.
 */
export async function figuresOfRecording(): Promise<Record<string, Figure>> {
  const folder = mkdtempSync(join(tmpdir(), 'heliaster-noise-'))
  const path = join(folder, 'noise.wav')
  writeFileSync(path, numberedNoise(Math.round((MINUTES * 60 + 40) * RATE)))
  const { file } = JSON.parse(readFileSync(join(ENGINE, 'engine.json'), 'utf8')) as { file: string }
  writeFileSync(join(ENGINE, PROBED), `${PROBE}\n${readFileSync(join(ENGINE, file), 'utf8')}`)
  const app = await openApp({ args: [`--use-file-for-fake-audio-capture=${path}%noloop`] })
  try {
    const { page } = app
    await page.addInitScript(() => localStorage.setItem('heliaster-recorder', JSON.stringify({ input: 'microphone', channels: 'left' })))
    await page.addInitScript(collectProbe)
    await page.route('**/engine/engine.json', (route) => route.fulfill({ json: { file: PROBED } }))
    await newKit(page)
    await page.getByRole('button', { name: 'Forget the highest level' }).waitFor({ timeout: 60_000 })
    await page.waitForTimeout(1500)
    await page.getByRole('button', { name: 'Record', exact: true }).click()
    await page.evaluate(() => {
      const busy = () => {
        const until = performance.now() + 200
        while (performance.now() < until) Math.sqrt(Math.random())
      }
      setInterval(busy, 350)
    })
    await page.waitForTimeout(MINUTES * 60_000)
    await page.getByRole('button', { name: 'Stop and cut' }).click({ timeout: 60_000 })
    await page
      .getByText(/^\d+ hits?/)
      .first()
      .waitFor({ timeout: 300_000 })
    const { frames, wrong, missed } = await compare(page)
    return {
      'recording.minutes': { value: frames / RATE / 60, unit: 'min' },
      'recording.lostDoubledOrChangedSamples': { value: wrong, unit: `of ${frames}` },
      'recording.lostBlocks': { value: missed, unit: 'blocks of 128 the worklet was not called for' },
    }
  } finally {
    await app.close()
    rmSync(join(ENGINE, PROBED))
    rmSync(folder, { recursive: true, force: true })
  }
}

/** At the worklet's input: each block is copied out with its frame, before the recorder sees it. */
const PROBE = `
const register = globalThis.registerProcessor
globalThis.registerProcessor = (name, Recorder) => register(name, name !== 'heliaster-recorder' ? Recorder : class extends Recorder {
  process(inputs) {
    const block = inputs[0][0]
    if (block) {
      this.probed ??= { at: 0, frames: new Float64Array(256), samples: new Float32Array(256 * 128) }
      this.probed.frames[this.probed.at] = currentFrame
      this.probed.samples.set(block, this.probed.at++ * 128)
      if (this.probed.at === 256) {
        this.port.postMessage(this.probed, [this.probed.frames.buffer, this.probed.samples.buffer])
        this.probed = undefined
      }
    }
    return super.process(inputs)
  }
})`

function collectProbe(): void {
  const probed: { frames: Float64Array; samples: Float32Array }[] = []
  Object.assign(window, { probed })
  window.AudioWorkletNode = class extends AudioWorkletNode {
    constructor(context: BaseAudioContext, name: string, options?: AudioWorkletNodeOptions) {
      super(context, name, options)
      if (name === 'heliaster-recorder') this.port.onmessage = ({ data }) => probed.push(data)
    }
  }
}

interface Comparison {
  readonly frames: number
  readonly wrong: number
  readonly missed: number
}

/** Reads the stored file in the page, finds where it begins in what was probed, and compares to the end of both. */
function compare(page: Page): Promise<Comparison> {
  return page.evaluate(async () => {
    const { probed } = window as unknown as { probed: { frames: Float64Array; samples: Float32Array }[] }
    const request = indexedDB.open('heliaster')
    const db = await new Promise<IDBDatabase>((resolve) => (request.onsuccess = () => resolve(request.result)))
    const all = db.transaction('audio').objectStore('audio').getAll()
    const kept = await new Promise<{ name: string; bytes: Blob }[]>((resolve) => (all.onsuccess = () => resolve(all.result)))
    const bytes = new DataView(await kept.find((one) => one.name.startsWith('Recording'))!.bytes.arrayBuffer())
    const frames = (bytes.byteLength - 44) / 3
    const stored = (i: number) => bytes.getUint16(44 + i * 3, true) | (bytes.getInt8(46 + i * 3) << 16)
    const heard = new Int32Array(probed.length * 256 * 128)
    let missed = 0
    let expected = probed[0].frames[0]
    probed.forEach(({ frames: at, samples }, n) => {
      for (const frame of at) {
        missed += (frame - expected) / 128
        expected = frame + 128
      }
      samples.forEach((sample, i) => (heard[n * 256 * 128 + i] = Math.round(sample * 8388608)))
    })
    let start = 0
    const begins = (at: number) => Array.from({ length: 64 }, (_, i) => heard[at + i] === stored(i)).every(Boolean)
    while (start < heard.length && !begins(start)) start++
    const count = Math.min(frames, heard.length - start)
    let wrong = start === heard.length ? frames : 0
    for (let i = 0; i < count; i++) if (heard[start + i] !== stored(i)) wrong++
    return { frames: count, wrong, missed }
  })
}

/**
 * Sample n has the value of a hash of n, so that a lost or doubled sample cannot hide; at half of full scale, since the
 * browser's fake device may resample and overshoot.
 */
function numberedNoise(frames: number): Uint8Array {
  const samples = Float32Array.from({ length: frames }, (_, n) => (Math.imul(n, 2654435761) >> 16) / 65536)
  return writeWav({ sampleRateHz: RATE, channels: [samples] }, { bits: 16 })
}
