import { hashOf, testIds } from '../builders'
import { applyBatch, kitKind } from '../document'
import { difference } from '../elements'
import type { ElementEdit } from '../elements'
import type { AudioHash, TieId } from '../ids'
import type { Kit, Tie } from '../kit'
import { applyEdit } from '../kit-edit'
import type { KitEdit } from '../kit-edit'
import { createBus, createPad, createRay, freeNote, wholeClip } from '../make'
import { responseTo } from '../responses'
import { padSettings } from '../resolve'
import { noEnvelope, responseSources } from '../shape'
import type { Response } from '../shape'

type Makers = { readonly [Type in KitEdit['type']]: () => Extract<KitEdit, { type: Type }> | undefined }

/** Any edit that fits the kit, by seeded chance. The compiler asks for every kind there is. */
export function randomEdit(kit: Kit, random: () => number): KitEdit {
  const makeId = testIds(Math.floor(random() * 1e9))
  const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]
  const maybe = <T, R>(list: readonly T[], make: (one: T) => R): R | undefined => (list.length > 0 ? make(any(list)) : undefined)
  const pad = any(kit.pads)
  const other = any(kit.pads)
  const ray = any(pad.rays)
  const audio = any(Object.keys(kit.audio)) as AudioHash
  const element = (type: ElementEdit['type']) => {
    for (let tries = 0; tries < 20; tries++) {
      const after = applyEdit(kit, any(whole)() ?? { type: 'setKit', fields: {} })
      const found = difference(kit, after, kitKind.ground).filter((edit) => edit.type === type && fits(kit, edit))
      if (found.length > 0) return any(found) as never
    }
    return undefined
  }
  const makers: Makers = {
    setKit: () => ({
      type: 'setKit',
      fields: any([
        { name: `n${random()}` },
        { tempoBpm: 60 + random() * 100, values: { gainDb: -random() } },
        { maxStrikes: 1 + Math.floor(random() * 128) },
      ]),
      ...(random() < 0.2 ? { clear: ['maxStrikes' as const] } : {}),
    }),
    addPad: () => ({
      type: 'addPad',
      pad: createPad(makeId, { name: 'new' }, freeNote(kit)),
      index: Math.floor(random() * (kit.pads.length + 1)),
    }),
    removePad: () => (kit.pads.length > 2 ? { type: 'removePad', padId: pad.id } : undefined),
    movePad: () => ({ type: 'movePad', padId: pad.id, index: Math.floor(random() * kit.pads.length) }),
    setPad: () => ({
      type: 'setPad',
      padId: pad.id,
      ...any([
        { own: { values: { pan: random() * 2 - 1 }, pick: any(['cycle', 'random', 'shuffle'] as const) } },
        {
          own: {
            values: { driveDb: random() * 60, crush: any([0, random()]) },
            choices: { filter1Kind: any(['off', 'lowPass', 'notch'] as const) },
          },
        },
        { own: { envelopes: { pitch: { points: [{ seconds: 0, value: 1200 * random(), bend: 0 }] } } } },
        { own: { responses: withResponse(padSettings(kit, pad).responses, responseTo(any(responseSources), 'gainDb', 24 * random())) } },
        { own: kit.buses.length > 0 ? { bus: any(kit.buses).id } : {} },
        {
          own: {},
          clear: any([
            ['pan', 'name', 'bus'],
            ['responses', 'driveDb'],
            ['choices', 'pitch'],
          ]) as never,
        },
      ]),
    }),
    setPadNotes: () => ({ type: 'setPadNotes', padId: pad.id, notes: [Math.floor(random() * 128)] }),
    setPadLeader: () => {
      const fits = kit.pads.filter((one) => one !== pad && !leansOn(kit, one, pad))
      return { type: 'setPadLeader', padId: pad.id, leansOn: fits.length > 0 && random() < 0.7 ? any(fits).id : null }
    },
    setPadFilling: () => ({
      type: 'setPadFilling',
      padId: pad.id,
      ...any([
        { bands: other.bands },
        { spread: any(['even', 'own'] as const) },
        { rays: [...pad.rays, createRay(makeId, 'more')].slice(-3) },
      ]),
    }),
    setRay: () =>
      maybe(pad.rays, (ray) => ({
        type: 'setRay',
        padId: pad.id,
        rayId: ray.id,
        fields: any([
          { values: { gainDb: -6 * random() }, mute: random() < 0.5 },
          { envelopes: { level: noEnvelope } },
          maybe(kit.buses, (bus) => ({ bus: bus.id })) ?? {},
        ]),
        ...(random() < 0.3 ? { clear: any([['bus' as const], ['level' as const], ['gainDb' as const]]) } : {}),
      })),
    setBand: () =>
      maybe(pad.bands, (band) => ({ type: 'setBand', padId: pad.id, bandId: band.id, fields: { values: { gainDb: random() } } })),
    setClip: () =>
      maybe(ray ? pad.bands.flatMap((band) => band.turns) : [], (turn) => ({
        type: 'setClip',
        padId: pad.id,
        turnId: turn.id,
        rayId: ray.id,
        clip: any([null, 'intendedSilence' as const, wholeClip(audio, { frames: 9 + Math.floor(random() * 9), channels: 1 })]),
      })),
    putTie: () => ({
      type: 'putTie',
      tie: any<Tie>([
        {
          kind: 'chokeGroup',
          id: `tie-${Math.floor(random() * 3)}` as TieId,
          name: 'g',
          pads: [...new Set([pad.id, other.id])],
          fadeSeconds: random(),
        },
        {
          kind: 'choke',
          id: `choke-${Math.floor(random() * 3)}` as TieId,
          from: pad.id,
          to: [...new Set([any(kit.pads).id, other.id])],
          fadeSeconds: random(),
        },
        {
          kind: 'alsoStrike',
          id: 'also-1' as TieId,
          from: pad.id,
          to: [{ pad: other.id, chance: random(), gainDb: 0, delaySeconds: 0 }],
          passOn: false,
        },
        {
          kind: 'openings',
          id: 'open-1' as TieId,
          controller: 4,
          steps: [
            { from: 0, pad: pad.id },
            { from: 64, pad: other.id },
          ],
        },
      ]),
    }),
    removeTie: () => maybe(kit.ties, (tie) => ({ type: 'removeTie', tieId: tie.id })),
    putGroove: () => ({
      type: 'putGroove',
      groove: {
        id: 'groove-1' as never,
        name: 'g',
        lengthSteps: 16,
        stepsPerBeat: 4,
        swing: 0.5 + random() / 4,
        strings: [...new Set([pad.id, other.id])].map((padId) => ({
          padId,
          beads: [0, 4, 9]
            .map((step) => ({ id: `${padId}.${step}` as never, step, velocity: 1 + Math.floor(random() * 127) }))
            .slice(Math.floor(random() * 3)),
        })),
      },
    }),
    removeGroove: () => ({ type: 'removeGroove', grooveId: 'groove-1' as never }),
    putBus: () => ({
      type: 'putBus',
      bus: { ...createBus(`bus-${Math.floor(random() * 3)}` as never, 'b'), values: { gainDb: -random() } },
    }),
    removeBus: () => maybe(kit.buses, (bus) => ({ type: 'removeBus', busId: bus.id })),
    putAudio: () => ({ type: 'putAudio', audio: hashOf('c'), info: { name: 'c.wav', sampleRateHz: 48000, frames: 100, channels: 1 } }),
    removeAudio: () => ({ type: 'removeAudio', audio: any([audio, hashOf('c')]) }),
    replaceAudio: () => ({
      type: 'replaceAudio',
      from: audio,
      to: any([hashOf('f'), hashOf('e'), audio]),
      info: { name: 'other.wav', sampleRateHz: any([44100, 48000]), frames: 40 + Math.floor(random() * 100), channels: 1 },
    }),
    set: () => element('set'),
    put: () => element('put'),
    move: () => element('move'),
    remove: () => element('remove'),
  }
  const { set, put, move, remove, ...wholes } = makers
  const whole = Object.values(wholes) as (() => KitEdit | undefined)[]
  return any([...whole, set, put, move, remove])() ?? { type: 'setKit', fields: {} }
}

/** One more response, in the place of one that is called alike. */
function withResponse(responses: readonly Response[], more: Response): Response[] {
  return [...responses.filter(({ id }) => id !== more.id), more].slice(-3)
}

function leansOn(kit: Kit, from: Kit['pads'][number], on: Kit['pads'][number]): boolean {
  for (let at: Kit['pads'][number] | undefined = from; at; at = kit.pads.find((pad) => pad.id === at?.leansOn)) if (at === on) return true
  return false
}

/** Whether an edit of one element stands by itself: some make sense only beside others. */
function fits(kit: Kit, edit: ElementEdit): boolean {
  return applyBatch(kitKind, kit, [edit]).refused.length === 0
}
