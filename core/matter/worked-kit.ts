import type { Clip } from '../kit/clip'
import type { AudioHash } from '../kit/ids'
import type { Groove, Kit, Pad, Tie } from '../kit/kit'
import { mapKept } from '../kit/list'
import type { FormedClip } from '../kit/matter-values'
import { valueOf } from '../kit/parameters'
import { clipsBesidePads, clipsOfPad, mapClips, padSettings, partOf } from '../kit/resolve'
import { planStep } from './plan'
import { formsOf } from './forms'
import { noteRecipe, recipeOf } from './recipes'
import type { Recipe } from './recipes'
import { isWorked, stepsOf } from './steps'

/** Changes whenever the same settings come to another sound. */
const VERSION = 2
/** A standstill goes round over so much of its end. */
const ROUND_SECONDS = 3
const ROUND_OVER_SECONDS = 0.6
const USUAL_RATE_HZ = 48000

/** A key of a worked sound, which nothing is kept by: the same settings of the same stretch, the same key. */
function keyOf({ clip, tempoBpm, semitones, octaves, take }: Recipe): AudioHash {
  const { audio, startFrame, endFrame, channel, repairs, slices } = clip
  const steps = stepsOf(clip).map(({ kind, part, values, curve }) => ({ kind, part, values, curve }))
  const isInBeats = steps.some(({ values }) => (values.beats ?? 0) > 0)
  const said = { VERSION, audio, startFrame, endFrame, channel, repairs, steps, strikes: slices?.map(({ frame }) => frame), semitones, octaves, take, tempo: isInBeats ? tempoBpm : 0 } // prettier-ignore
  return `worked ${JSON.stringify(said)}` as AudioHash
}

/** A clip of the sound that its matter is worked into, and what that sound is made of. */
export function workedClip(kit: Pick<Kit, 'audio' | 'tempoBpm'>, clip: Clip, by: Partial<Recipe> = {}): Clip {
  return isWorked(clip) ? workedPlaces(kit, clip, by).clip : clip
}

/** The same, with where frames of its file are in it. */
function workedPlaces(
  kit: Pick<Kit, 'audio' | 'tempoBpm'>,
  clip: Clip,
  { semitones = 0, octaves = 0, take = 0 }: Partial<Recipe> = {},
): { readonly clip: Clip; readonly at: (frame: number) => number } {
  const recipe = { clip, tempoBpm: kit.tempoBpm, semitones, octaves, take }
  const audio = keyOf(recipe)
  const rateHz = kit.audio[clip.audio]?.sampleRateHz ?? USUAL_RATE_HZ
  let frames = clip.endFrame - clip.startFrame
  let place = (frame: number) => frame - clip.startFrame
  let stillFrom: number | undefined
  for (const step of stepsOf(clip)) {
    const plan = planStep(step, frames, rateHz, place, recipe)
    const before = place
    place = (frame) => plan.outAt(before(frame))
    frames = plan.frames
    stillFrom = plan.stillFrom ?? (stillFrom === undefined ? undefined : Math.round(plan.outAt(stillFrom)))
  }
  const at = (frame: number) => Math.min(frames, Math.max(0, Math.round(place(frame))))
  const { process: _process, repairs: _repairs, loop, slices, ...plain } = clip
  const still = stillFrom === undefined ? undefined : standstill(frames, rateHz)
  const moved = loop && { ...loop, startFrame: at(loop.startFrame), endFrame: at(loop.endFrame) }
  const round = still ?? (moved && moved.endFrame > moved.startFrame ? moved : undefined)
  const worked: Clip = {
    ...plain,
    audio,
    startFrame: 0,
    endFrame: frames,
    channel: 'both',
    ...(round ? { loop: round } : {}),
    ...(slices ? { slices: slices.map((slice) => ({ ...slice, frame: at(slice.frame) })) } : {}),
  }
  noteRecipe(worked, recipe)
  return { clip: worked, at }
}

/** What stands still goes round until its envelope ends. */
function standstill(frames: number, rateHz: number): NonNullable<Clip['loop']> {
  const startFrame = Math.max(0, frames - Math.round(ROUND_SECONDS * rateHz))
  return { startFrame, endFrame: frames, kind: 'forward', until: 'end', crossfadeSeconds: ROUND_OVER_SECONDS }
}

const pads = new WeakMap<Pad, { readonly tempoBpm: number; readonly root: number | undefined; readonly pad: Pad }>()
const padLists = new WeakMap<readonly Pad[], { readonly tempoBpm: number; readonly pads: Pad[] }>()

/**
 * A kit as it is played: clips whose matter is worked are clips of the sounds they are worked into, whose audio is named by
 * a key of its own (`recipeOf`) and called as its source. What holds no worked clip stays the same object, and the same kit
 * gives the same pads.
 */
export function workedKit(kit: Kit): Kit {
  const pads = workedPads(kit)
  const ties = workedTies(kit)
  const grooves = workedGrooves(kit)
  if (pads === kit.pads && ties === kit.ties && grooves === kit.grooves) return kit
  const ofPads = pads.filter((pad, i) => pad !== kit.pads[i]).flatMap((pad) => clipsOfPad(pad).flatMap(audioOfForms))
  const others = clipsBesidePads({ ...kit, ties, grooves }).map(({ audio }) => audio)
  const infos = [...ofPads, ...others].flatMap((key) => {
    const recipe = recipeOf(key)
    const source = recipe && kit.audio[recipe.clip.audio]
    return source ? [[key, source] as const] : []
  })
  return { ...kit, pads, ties, grooves, audio: { ...kit.audio, ...Object.fromEntries(infos) } }
}

function workedPads(kit: Kit): Pad[] {
  const known = padLists.get(kit.pads)
  if (known?.tempoBpm === kit.tempoBpm) return known.pads
  const worked = kit.pads.map((pad) => workedPad(kit, pad))
  const list = worked.every((pad, i) => pad === kit.pads[i]) ? kit.pads : worked
  padLists.set(kit.pads, { tempoBpm: kit.tempoBpm, pads: list })
  return list
}

/** A pad as it is played. */
export function workedPad(kit: Kit, pad: Pad): Pad {
  const known = pads.get(pad)
  if (known?.pad === pad) return pad
  const clips = clipsOfPad(pad)
  if (!clips.some(isWorked)) {
    pads.set(pad, { tempoBpm: kit.tempoBpm, root: undefined, pad })
    return pad
  }
  const root = padSettings(kit, pad).rootNote
  if (known?.tempoBpm === kit.tempoBpm && known.root === root) return known.pad
  const worked = mapClips(pad, (clip, rayId) => formedClip(kit, pad, root, clips.length, clip, rayId))
  pads.set(pad, { tempoBpm: kit.tempoBpm, root, pad: worked })
  return worked
}

/** A clip as it is worked, with the forms that strikes choose among. */
function formedClip(kit: Kit, pad: Pad, root: number | undefined, clips: number, clip: Clip, rayId: string): Clip {
  if (!isWorked(clip)) return clip
  const ray = pad.rays.find(({ id }) => id === rayId)
  const asked = formsOf(clip, { notes: pad.notes, root, keyTrack: ray ? valueOf(ray, 'keyTrack') : 0, clips })
  const made = workedClip(kit, clip)
  if (asked.forms.length === 0) return made
  const forms = asked.forms.map(({ note, semitones, isTuned, octaves, take }) => ({ octaves, isTuned, clip: workedClip(kit, clip, { semitones, octaves, take }), ...(note === undefined ? {} : { note }) })) // prettier-ignore
  const formed: FormedClip = { ...made, forms, byVelocity: asked.byVelocity, byChance: asked.byChance }
  return formed
}

/** The audio that a clip as it is played names, that of its forms too. */
export const audioOfForms = (clip: FormedClip): AudioHash[] => [clip.audio, ...(clip.forms ?? []).map((form) => form.clip.audio)]

/** Lists as they are played, by the list that a document has, with the tempo that they were worked at. */
function workedList<Of>(
  known: WeakMap<readonly Of[], { readonly tempoBpm: number; readonly list: Of[] }>,
  list: Of[],
  tempoBpm: number,
  worked: (of: Of) => Of,
): Of[] {
  const before = known.get(list)
  if (before?.tempoBpm === tempoBpm) return before.list
  const kept = mapKept(list, worked)
  known.set(list, { tempoBpm, list: kept })
  return kept
}

const tieLists: Parameters<typeof workedList<Tie>>[0] = new WeakMap()
const grooveLists: Parameters<typeof workedList<Groove>>[0] = new WeakMap()

/** Parts of a recording whose matter is worked: the recording is worked whole, and each part is where it went. */
function workedTies(kit: Kit): Tie[] {
  return workedList(tieLists, kit.ties, kit.tempoBpm, (tie) => {
    if (tie.kind !== 'parts' || !isWorked(tie.clip)) return tie
    const { clip, at } = workedPlaces(kit, tie.clip)
    const parts = tie.parts.map((part, place) => {
      const one = partOf(tie, place)
      const startFrame = Math.min(clip.endFrame - 1, at(one.startFrame))
      return { ...part, startFrame, endFrame: Math.max(startFrame + 1, at(one.endFrame)) }
    })
    return { ...tie, clip, parts }
  })
}

/** Grooves whose beads have clips of their own. */
function workedGrooves(kit: Kit): Groove[] {
  return workedList(grooveLists, kit.grooves, kit.tempoBpm, (groove) => {
    const strings = mapKept(groove.strings, (string) => {
      const beads = mapKept(string.beads, (bead) =>
        bead.clip && isWorked(bead.clip) ? { ...bead, clip: workedClip(kit, bead.clip) } : bead,
      )
      return beads === string.beads ? string : { ...string, beads }
    })
    return strings === groove.strings ? groove : { ...groove, strings }
  })
}
