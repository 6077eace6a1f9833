import type { Audio } from '../audio/audio'
import { kitSchema } from '../kit/kit'
import type { Kit } from '../kit/kit'
import { randomKitOf, seeded } from '../kit/testing'
import { LIMITER_CEILING } from './mix/limiter'
import { createOffline, renderOffline, toScore } from './offline'
import type { ScoreEvent } from './offline'
import { CONTROLS, EventType } from './program/codes'

const RATE = 48000
const FRAMES = 20000
const noise = seeded(77)
const sound: Audio = { sampleRateHz: 44100, channels: [0, 1].map(() => Float32Array.from({ length: 6000 }, () => 2 * noise() - 1)) }

/** A kit of everything that can be said; its clips are short, so that many can be held, and nothing is muted or begins after its end. */
function anyKit(seed: number): Kit {
  const kit = randomKitOf(kitSchema, seeded(seed)) as Kit
  const tame = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return
    if ('startFrame' in value && 'endFrame' in value && 'audio' in value) Object.assign(value, { startFrame: Number(value.startFrame) % 3000, endFrame: 3000 + (Number(value.endFrame) % 3000) }) // prettier-ignore
    if ('mute' in value) Object.assign(value, { mute: false })
    for (const name of ['startSeconds', 'endSeconds', 'fadeInSeconds', 'fadeOutSeconds', 'delaySeconds'])
      if (name in value) Object.assign(value, { [name]: Number((value as Record<string, unknown>)[name]) / 10_000 })
    Object.values(value).forEach(tame)
  }
  tame(kit)
  return kit
}

function anyEvent(random: () => number, pads: number): ScoreEvent {
  const frame = Math.floor(random() * FRAMES)
  const padSlot = Math.floor(random() * (pads + 2)) - 1 // some are no pad at all
  const key = Math.floor(random() * 5)
  const draw = random()
  if (draw < 0.5)
    return { frame, type: EventType.strike, padSlot, velocity: Math.floor(random() * 129), note: Math.floor(random() * 129) - 1, key }
  if (draw < 0.6) return { frame, type: EventType.release, padSlot, key }
  if (draw < 0.75)
    return { frame, type: EventType.controller, padSlot: 0, note: Math.floor(random() * (CONTROLS + 4)) - 2, velocity: 4 * random() - 2 }
  if (draw < 0.9)
    return {
      frame,
      type: EventType.fader,
      padSlot: Math.floor(random() * 36) - 1,
      note: Math.floor(random() * 20) - 1,
      velocity: 3 * random(),
    }
  return {
    frame,
    type: [EventType.groove, EventType.stopGroove, EventType.stopAll, EventType.stopPad, 99][Math.floor(random() * 5)],
    padSlot,
  }
}

test('random documents under random events put out numbers, none above the ceiling, the same from the kernel as from its plain form', () => {
  let sounding = 0
  for (let seed = 1; seed <= 60; seed++) {
    const random = seeded(seed + 9000)
    const kit = anyKit(seed)
    const { engine } = createOffline(kit, RATE, () => sound)
    const events = Array.from({ length: 120 }, () => anyEvent(random, kit.pads.length))
    const [left, right] = renderOffline(engine, toScore(events), FRAMES, 257)
    const plain = createOffline(kit, RATE, () => sound, kit.seed, undefined, true)
    const plainly = renderOffline(plain.engine, toScore(events), FRAMES, 100)
    const apart = [left, right].map((side, s) => side.findIndex((sample, i) => !Object.is(sample, plainly[s][i])))
    if (apart.some((at) => at >= 0)) throw new Error(`seed ${seed}: the kernel and its plain form are apart at ${apart.join(' and ')}`)
    for (const side of [left, right])
      for (const sample of side)
        if (!Number.isFinite(sample) || Math.abs(sample) > LIMITER_CEILING) throw new Error(`seed ${seed}: ${sample}`)
    if (left.some((sample) => sample !== 0)) sounding++
  }
  expect(sounding).toBeGreaterThan(10)
})
