import type { Kit, Pad, PadSettings } from './kit'
import type { Envelope, Shape } from './shape'

const none: Envelope = { points: [] }

const plainShape: Shape = {
  amp: none,
  pitch: none,
  filter: { type: 'off', cutoffHz: 2000, resonance: 0, env: none, envCents: 0 },
  driveDb: 0,
  crush: 0,
  startSeconds: 0,
  decayScale: 1,
}

/** What the first version had where nobody had set a shape or responses. */
const usual: Pick<PadSettings, 'shape' | 'responses'> = {
  shape: plainShape,
  responses: [{ from: 'velocity', to: { kind: 'gainDb' }, amount: 30, bend: 0, bypass: false }],
}

/**
 * What an absent part of a kit stood for: a pad's shape and responses were its leader's or the usual ones, a section of a
 * ray's shape the pad's, repairs none.
 */
export function oldKitGround(kit: Kit, at: readonly string[]): unknown {
  const last = at[at.length - 1]
  if (last === 'repairs') return {}
  if (at[0] !== 'pads') return undefined
  const pad = kit.pads.find(({ id }) => id === at[1])
  if (!pad) return undefined
  if (at.length === 4 && at[2] === 'own' && (last === 'shape' || last === 'responses')) return settingsOf(kit, pad)[last]
  if (last === 'shape') return {}
  if (last !== 'filter' || at[at.length - 2] !== 'shape') return undefined
  const ray = pad.rays.find(({ id }) => id === at[3])
  return { ...settingsOf(kit, pad).shape, ...ray?.shape }.filter
}

function settingsOf(kit: Kit, pad: Pad): Pick<PadSettings, 'shape' | 'responses'> {
  const chain: Pad[] = []
  const padOf = (id: string) => kit.pads.find((one) => one.id === id)
  for (let at: Pad | undefined = pad; at && !chain.includes(at); at = at.leansOn ? padOf(at.leansOn) : undefined) chain.push(at)
  return Object.assign({}, usual, ...chain.reverse().map(({ own }) => own))
}
