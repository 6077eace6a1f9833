import { applyEdit, noEnvelope } from '@heliaster/core/kit'
import type { Envelope, Kit, Pad } from '@heliaster/core/kit'
import type { RecordedHit } from '@heliaster/core/shaping'

import { drawStrike } from '../../../audio/engine/draw'
import { coreWork } from '../../../audio/workers/workers'
import { nearestNote, noteName } from '../../../kit-view/note-name'
import { padName } from '../../../kit-view/use-kit'
import { targetOf } from '../whom/target'
import type { ShapeTarget } from '../whom/target'

const RATE_HZ = 48000
const LONGEST_SECONDS = 5
const VELOCITY = 112

/** An envelope that follows another hit, or why there is none. */
export type Followed = { readonly envelope: Envelope; readonly words: string } | { readonly envelope?: undefined; readonly words: string }

async function heard(kit: Kit, pad: Pad): Promise<RecordedHit> {
  const { left, right } = await drawStrike(kit, pad, VELOCITY, LONGEST_SECONDS, RATE_HZ)
  return { mono: left.map((sample, i) => (sample + right[i]) / 2), sampleRateHz: RATE_HZ }
}

/** What is shaped, with its level left alone. */
function unshaped(kit: Kit, pad: Pad, target: ShapeTarget): Pad {
  const bare = target.edits({ envelopes: { level: noEnvelope } }).reduce(applyEdit, kit)
  return targetOf(bare, bare.pads.find(({ id }) => id === pad.id) ?? pad, target.whom).drawn
}

/** Lets the level die away as another pad's hit does, as both are heard. */
export async function levelOf(kit: Kit, other: Pad, pad: Pad, target: ShapeTarget): Promise<Followed> {
  const [wanted, own] = await Promise.all([heard(kit, other), heard(kit, unshaped(kit, pad, target))])
  const envelope = await coreWork().followLevel(wanted, own)
  const name = padName(kit, other)
  if (!envelope) return { words: `There is nothing to follow: ${name} or ${padName(kit, pad)} is silent.` }
  return { envelope, words: `The level follows ${name}. Where it was softer than ${name}, it stays as it is.` }
}

/** Lets the pitch fall as another pad's hit does. */
export async function pitchOf(kit: Kit, other: Pad): Promise<Followed> {
  const found = await coreWork().followPitch(await heard(kit, other))
  const name = padName(kit, other)
  if (!found) return { words: `No single tone carries ${name}, so it has no pitch to follow. Choose a hit with a clear tone.` }
  const semitones = Math.abs(found.fallCents / 100).toFixed(1)
  const { note } = nearestNote(found.settlesHz, kit.tuningA4Hz)
  const way = Math.abs(found.fallCents) < 50 ? 'hardly moves' : `${found.fallCents > 0 ? 'falls' : 'rises'} by ${semitones} semitones`
  return { envelope: found.envelope, words: `The pitch follows ${name}: it ${way}, to ${found.settlesHz.toFixed(1)} Hz (${noteName(note)}) there.` }
} // prettier-ignore
