import { padSettings, rayOfTurn, shapeOf } from '@heliaster/core/kit'
import type { Clearable, Kit, KitEdit, OwnSettings, Pad, PadId, PadSettings, RayId, Turn, TurnId } from '@heliaster/core/kit'

/** Whom edits touch: the whole pad, one of its rays, one turn, or several pads with it. */
export type Whom =
  | { readonly kind: 'pad' }
  | { readonly kind: 'ray'; readonly rayId: RayId }
  | { readonly kind: 'turn'; readonly turnId: TurnId }
  | { readonly kind: 'pads'; readonly padIds: readonly PadId[] }

type ShapeOwn = Pick<OwnSettings, 'values' | 'choices' | 'envelopes'>

/** What is shaped, with nothing left to inherit, and the way to change it. */
export interface ShapeTarget {
  readonly whom: Whom
  readonly settings: PadSettings
  /** What it has of its own, where there is anything to inherit. */
  readonly own: ShapeOwn
  readonly inherits: boolean
  /** The pads that edits reach. */
  readonly pads: readonly Pad[]
  edits(own: OwnSettings): KitEdit[]
  /** What is its own falls back to what it inherits. */
  back(names: readonly Clearable[]): KitEdit[]
  /** The pad as it is drawn and heard alone: only that ray, or only that turn. */
  readonly drawn: Pad
}

/** A ray of nothing, over which the values of a turn stand. */
const bare = { values: {}, choices: {}, envelopes: {} }

export function targetOf(kit: Kit, pad: Pad, whom: Whom): ShapeTarget {
  const ray = whom.kind === 'ray' ? pad.rays.find(({ id }) => id === whom.rayId) : undefined
  if (ray) return rayTarget(kit, pad, ray.id)
  const turn = whom.kind === 'turn' ? turnsOf(pad).find(({ id }) => id === whom.turnId) : undefined
  if (turn) return turnTarget(kit, pad, turn)
  return whom.kind === 'pads' ? padsTarget(kit, pad, whom.padIds) : padTarget(kit, pad)
}

const turnsOf = (pad: Pad): Turn[] => pad.bands.flatMap((band) => band.turns)

function padTarget(kit: Kit, pad: Pad): ShapeTarget {
  return {
    whom: { kind: 'pad' },
    settings: padSettings(kit, pad),
    own: pad.own,
    inherits: pad.leansOn !== undefined,
    pads: [pad],
    edits: (own) => [{ type: 'setPad', padId: pad.id, own }],
    back: (names) => [{ type: 'setPad', padId: pad.id, own: {}, clear: [...names] }],
    drawn: pad,
  }
}

/** Shown and heard is this pad; what is set is set on all of them alike. */
function padsTarget(kit: Kit, pad: Pad, padIds: readonly PadId[]): ShapeTarget {
  const pads = kit.pads.filter(({ id }) => id === pad.id || padIds.includes(id))
  const edit = (own: OwnSettings, clear?: readonly Clearable[]) =>
    pads.map((one): KitEdit => ({ type: 'setPad', padId: one.id, own, ...(clear ? { clear: [...clear] } : {}) }))
  return { ...padTarget(kit, pad), whom: { kind: 'pads', padIds }, pads, edits: (own) => edit(own), back: (names) => edit({}, names) }
}

function rayTarget(kit: Kit, pad: Pad, rayId: RayId): ShapeTarget {
  const ray = pad.rays.find(({ id }) => id === rayId)!
  const settings = padSettings(kit, pad)
  const edit = (fields: object, clear?: readonly Clearable[]): KitEdit =>
    ({ type: 'setRay', padId: pad.id, rayId, fields, ...(clear ? { clear: [...clear] } : {}) }) as KitEdit
  return {
    whom: { kind: 'ray', rayId },
    settings: { ...settings, ...shapeOf(settings, ray), order: ray.order ?? settings.order },
    own: ray,
    inherits: true,
    pads: [pad],
    edits: (own) => [edit(own)],
    back: (names) => [edit({}, names)],
    drawn: { ...pad, rays: pad.rays.map((one) => ({ ...one, mute: one.id !== rayId })) },
  }
}

function turnTarget(kit: Kit, pad: Pad, turn: Turn): ShapeTarget {
  const settings = padSettings(kit, pad)
  const withTurn = (change: (before: Turn) => Turn): KitEdit[] => {
    const bands = pad.bands.map((band) => ({ ...band, turns: band.turns.map((one) => (one.id === turn.id ? change(one) : one)) }))
    return [{ type: 'setPadFilling', padId: pad.id, bands }]
  }
  const band = pad.bands.find(({ turns }) => turns.includes(turn))!
  return {
    whom: { kind: 'turn', turnId: turn.id },
    settings: { ...settings, ...shapeOf(settings, rayOfTurn(bare, turn)) },
    own: { values: turn.values, choices: turn.choices, envelopes: turn.envelopes },
    inherits: true,
    pads: [pad],
    edits: ({ values, choices, envelopes }) =>
      withTurn((before) => ({
        ...before,
        ...(values ? { values: { ...before.values, ...values } as Turn['values'] } : {}),
        ...(choices ? { choices: { ...before.choices, ...choices } } : {}),
        ...(envelopes ? { envelopes: { ...before.envelopes, ...envelopes } } : {}),
      })),
    back: (names) =>
      withTurn(({ values, choices, envelopes, ...before }) => ({
        ...before,
        ...kept('values', without(values, names)),
        ...kept('choices', without(choices, names)),
        ...kept('envelopes', without(envelopes, names)),
      })),
    drawn: { ...pad, bands: [{ ...band, fromVelocity: 1, blendVelocities: 0, turns: [turn] }] },
  }
}

function without<T extends object>(of: T | undefined, names: readonly string[]): T | undefined {
  const left = Object.entries(of ?? {}).filter(([name]) => !names.includes(name))
  return left.length === 0 ? undefined : (Object.fromEntries(left) as T)
}

const kept = (name: string, value: object | undefined) => (value ? { [name]: value } : {})

/** Whether any of these is set on it. */
export function isSet({ own }: ShapeTarget, names: readonly Clearable[]): boolean {
  const all = { ...own.values, ...own.choices, ...own.envelopes } as Record<string, unknown>
  return names.some((name) => all[name] !== undefined)
}

/** Whether any of these is of its own, where it could be inherited. */
export function hasOwn(target: ShapeTarget, names: readonly Clearable[]): boolean {
  return target.inherits && isSet(target, names)
}
