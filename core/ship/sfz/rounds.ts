import type { Audio } from '../../audio/audio'
import { clipSamples } from '../../engine'
import { layLoop, loopOfClip } from '../../engine/memory/loops'
import type { Clip, Kit, Pad, Ray } from '../../kit/kit'
import { bandsOfRay, clipOfCell, padSettings } from '../../kit/resolve'
import type { PadSettings } from '../../kit/resolve'
import { playedSlices } from '../../kit/slices'
import { endsLoop, isShaped } from '../draw'

/** Readers that look past a loop's end for their interpolation find there what comes when it goes round. */
const GUARD_FRAMES = 64

/** Whether a clip's samples are drawn as they sound: its ray is shaped, or something is set for its slices. */
export function isDrawn(kit: Kit, pad: Pad, ray: Ray, clip: Clip): boolean {
  return isShaped(kit, pad, ray) || playedSlices(clip).length > 0
}

/** What of a clip goes round here as its pad plays it. */
type Way = 'whole' | 'part' | undefined

function roundOf(settings: PadSettings, clip: Clip): Way {
  const { mode } = settings
  if (loopOfClip(clip, 1) && (clip.loop?.until === 'end' || endsWithNote(settings))) return 'part'
  return mode === 'loopUntilLetGo' || mode === 'loopUntilStruckAgain' ? 'whole' : undefined
}

/** SFZ goes round for as long as a note is held, so what ends otherwise plays once through. */
export function endsWithNote({ mode }: PadSettings): boolean {
  return mode === 'hold' || mode === 'loopUntilLetGo'
}

/** What of a clip that is written as it is goes round in SFZ too. */
export function writtenRound(settings: PadSettings, clip: Clip): Way {
  return endsWithNote(settings) ? roundOf(settings, clip) : undefined
}

/** What of samples goes round, in frames: from `startFrame` up to `endFrame`, that not included. */
export interface Round {
  readonly startFrame: number
  readonly endFrame: number
}

/** Lays a clip's samples out with what of it goes round, its seam worked in. */
export function laidRound(audio: Audio, clip: Clip, round: 'whole' | 'part'): { readonly audio: Audio; readonly loop: Round } {
  const plain = clipSamples(audio, clip)
  const all = { startFrame: 0, endFrame: plain[0].length, isBackAndForth: false, crossfadeFrames: 0 }
  const loop = (round === 'part' && loopOfClip(clip, audio.sampleRateHz)) || all
  const { channels, laid } = layLoop(plain, loop, 1)
  const endFrame = laid.startFrame + laid.periodFrames
  const samples = channels.map((channel) => channel.slice(0, endFrame + GUARD_FRAMES))
  return { audio: { sampleRateHz: audio.sampleRateHz, channels: samples }, loop: { startFrame: laid.startFrame, endFrame } }
}

/** SFZ names the last frame that is played before it goes back. */
export function roundLines({ startFrame, endFrame }: Round): string[] {
  return ['loop_mode=loop_continuous', `loop_start=${startFrame}`, `loop_end=${endFrame - 1}`]
}

const ONCE = 'in SFZ it plays once through.'

/** What of a pad's going round SFZ does not say, each a sentence without the pad's name. */
export function lostRounds(kit: Kit, pad: Pad): string[] {
  const settings = padSettings(kit, pad)
  return pad.rays.flatMap((ray) => {
    const bands = bandsOfRay(pad, ray)
    const clips = bands.flatMap(({ turns }, band) => turns.map((_, turn) => clipOfCell(bands, band, turn, ray)))
    return clips.flatMap((clip) => (clip ? lostRound(settings, clip, ray, isDrawn(kit, pad, ray, clip)) : []))
  })
}

function lostRound(settings: PadSettings, clip: Clip, ray: Ray, drawn: boolean): string[] {
  const round = roundOf(settings, clip)
  if (!round) return []
  if (endsWithNote(settings) && !drawn)
    return round === 'part' && clip.loop?.until === 'letGo' ? ['what sounds once a loop is let go is left out: it stops there.'] : []
  if (round === 'part') return drawn && endsLoop(clip, settings, ray) ? [] : [`a clip goes round in a part of it here; ${ONCE}`]
  return [settings.mode === 'loopUntilLetGo' ? `goes round until let go here; shaped as it is, ${ONCE}` : `goes round until struck again here; ${ONCE}`] // prettier-ignore
}
