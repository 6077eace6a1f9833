import type { AudioHash } from './ids'
import type { AudioInfo, Band, Clip, Insert, Kit, Pad, Turn } from './kit'
import { merge } from './list'
import { clipsOfPad, insertsOf } from './resolve'

/** The clip on another file: its places are the same in seconds, and held within what the file has. */
export function clipOnto(clip: Clip, to: AudioHash, fromRateHz: number, info: AudioInfo): Clip {
  const place = (frame: number) => Math.max(0, Math.min(info.frames, Math.round((frame * info.sampleRateHz) / fromRateHz)))
  const endFrame = Math.max(1, place(clip.endFrame))
  const moved: Clip = { ...clip, audio: to, startFrame: Math.min(endFrame - 1, place(clip.startFrame)), endFrame }
  if (clip.loop) moved.loop = { ...clip.loop, startFrame: place(clip.loop.startFrame), endFrame: place(clip.loop.endFrame) }
  if (clip.slices)
    moved.slices = clip.slices.map((slice) =>
      isFrame(slice) ? place(slice) : { ...slice, frame: place(slice.frame) },
    ) as typeof clip.slices
  return moved
}

/** Slices of the first version were frames alone; old changes are made on clips of that form. */
const isFrame = (slice: unknown): slice is number => typeof slice === 'number'

/** Every clip of one file reads another one. Pads that do not use it stay the very same objects. */
export function replaceAudio(kit: Kit, from: AudioHash, to: AudioHash, info: AudioInfo): Kit {
  const known = (kit.audio as Record<AudioHash, AudioInfo | undefined>)[from]
  if (from === to || (!usesAudio(kit, from) && !known)) return kit
  const rateHz = known?.sampleRateHz ?? info.sampleRateHz
  const onto = (clip: Turn['clips'][string]) =>
    clip === 'intendedSilence' || clip.audio !== from ? clip : clipOnto(clip, to, rateHz, info)
  const isFrom = (one: Insert) => one.audio === from
  const insert = (one: Insert): Insert => (isFrom(one) ? { ...one, audio: to } : one)
  const { [from]: _gone, ...others } = kit.audio as Record<AudioHash, AudioInfo>
  return {
    ...kit,
    pads: kit.pads.map((pad) => (clipsOfPad(pad).some((clip) => clip.audio === from) ? withClips(pad, onto) : pad)),
    ties: kit.ties.map((tie) => ('clip' in tie && isOf(tie, from) ? { ...tie, clip: onto(tie.clip) as Clip } : tie)),
    ...(insertsOf(kit).some(isFrom)
      ? {
          inserts: kit.inserts.map(insert),
          buses: kit.buses.map((bus) => (bus.inserts.some(isFrom) ? { ...bus, inserts: bus.inserts.map(insert) } : bus)),
        }
      : {}),
    audio: { ...others, [to]: info },
  }
}

/** Whether a clip of the kit, on a pad or in a tie, or a room reads a file. */
export function usesAudio(kit: Kit, audio: AudioHash): boolean {
  if (insertsOf(kit).some((insert) => insert.audio === audio)) return true
  return kit.pads.some((pad) => clipsOfPad(pad).some((clip) => clip.audio === audio)) || kit.ties.some((tie) => isOf(tie, audio))
}

function isOf(tie: Kit['ties'][number], audio: AudioHash): boolean {
  return 'clip' in tie && tie.clip.audio === audio
}

function withClips(pad: Pad, change: (clip: Turn['clips'][string]) => Turn['clips'][string]): Pad {
  const inBands = (bands: Band[]): Band[] =>
    bands.map((band) => ({
      ...band,
      turns: band.turns.map((turn) =>
        merge(turn, { clips: Object.fromEntries(Object.entries(turn.clips).map(([ray, clip]) => [ray, change(clip)])) }),
      ),
    }))
  const rays = pad.rays.map((ray) =>
    ray.source.kind === 'clips' && ray.source.bands ? { ...ray, source: { ...ray.source, bands: inBands(ray.source.bands) } } : ray,
  )
  return { ...pad, bands: inBands(pad.bands), rays }
}
