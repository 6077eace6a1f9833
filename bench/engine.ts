import { execFileSync } from 'node:child_process'
import { join } from 'node:path'

import { applyEdit, createBus } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'

import { compareRules } from '../core/engine/testing/rules-kits'
import { aKit, anImpulse } from '../core/kit/builders'
import { loadEngine } from './engine-file'
import type { Engine } from './engine-file'
import { median, spreadOf } from './figure'
import type { Figure } from './figure'

const RATE = 48000
const PADS = 128
const MOVES = 400
const RULE_KITS = 200
const RULE_STRIKES = 10_000
const QUIET_MINUTES = 10

/** What an edit costs until the engine has it, whether the engine leaves anything to collect, and whether it keeps the rules. */
export async function figuresOfEngine(): Promise<Record<string, Figure>> {
  const engine = await loadEngine()
  return { ...edits(engine), ...collections(), ...rules() }
}

/** 128 pads of five bands of six turns on one bus: a fader and a pad are moved, against loading such a kit anew. */
function edits(engine: Engine): Record<string, Figure> {
  const cells = Array.from({ length: 5 }, () => Array.from({ length: 6 }, () => anImpulse(10)))
  const { kit, audio } = aKit(Array.from({ length: PADS }, () => ({ bands: cells })))
  const bus = createBus('bus' as never, 'All')
  const onBus: Kit = { ...kit, buses: [bus], pads: kit.pads.map((pad) => ({ ...pad, own: { ...pad.own, bus: bus.id } })) }
  const anew = () => engine.createOffline(onBus, RATE, (hash) => audio.get(hash))
  const { loader, engine: state } = anew()
  let now = onBus
  const sides = [new Float32Array(128), new Float32Array(128)]
  const timed = (change: (kit: Kit, i: number) => Kit) =>
    Array.from({ length: MOVES }, (_, i) => {
      now = change(now, i)
      const from = performance.now()
      loader.load(now)
      const ms = performance.now() - from
      engine.render(state, sides[0], sides[1], 0, 128)
      return ms
    }).slice(MOVES / 2)
  const whole = median([0, 1, 2].map(() => { const from = performance.now(); anew(); return performance.now() - from })) // prettier-ignore
  const fader = timed((doc, i) => applyEdit(doc, { type: 'putBus', bus: { ...bus, values: { gainDb: -(i % 40) / 4 } } }))
  const pad = timed((doc, i) => applyEdit(doc, { type: 'setPad', padId: doc.pads[i % PADS].id, own: { values: { pan: (i % 9) / 9 } } }))
  const unit = (what: string, ms: number[]) => `times a load of the whole kit; ${what} takes ${median(ms).toFixed(3)} ms (${spreadOf(ms).map((one) => one.toFixed(3)).join(' to ')})` // prettier-ignore
  const peer = `loading the kit of ${PADS} pads and ${PADS * 30} cells anew, ${whole.toFixed(0)} ms`
  return {
    'engine.fader': { value: whole / median(fader), unit: unit('a fader', fader), peer },
    'engine.padChange': { value: whole / median(pad), unit: unit('a pad', pad), peer },
  }
}

/** Collections of memory in ten minutes of the busy minute, plain and with everything moving, counted by the runtime itself. */
function collections(): Record<string, Figure> {
  const count = (kind: string) => {
    const out = execFileSync(process.execPath, ['--trace-gc', '--import', 'tsx', join(import.meta.dirname, 'quiet-minutes.ts'), String(QUIET_MINUTES), kind], { encoding: 'utf8' }) // prettier-ignore
    return (out.slice(out.indexOf('BEGIN'), out.indexOf('END')).match(/Scavenge|Mark-Compact|Mark-sweep/g) ?? []).length
  }
  const unit = `collections in ${QUIET_MINUTES} minutes (--trace-gc)`
  return { 'engine.collections': { value: count('plain'), unit }, 'engine.collectionsMoving': { value: count('moving'), unit } }
}

/** Random kits of every rule, strike by strike and sample by sample against a plain model; seeds that no test has. */
function rules(): Record<string, Figure> {
  let strikes = 0
  let faults = 0
  for (let i = 0; i < RULE_KITS; i++) {
    const found = compareRules(500_000 + i, RULE_STRIKES)
    strikes += found.strikes
    if (found.fault) {
      faults++
      console.error(found.fault)
    }
  }
  return { 'engine.rules': { value: RULE_KITS - faults, unit: `of ${RULE_KITS} random kits kept every rule in ${strikes} strikes`, peer: 'a plain model of the rules' } } // prettier-ignore
}
