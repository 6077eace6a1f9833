import { broadFamily, clipsOfPad, padSettings, filledPad } from '@heliaster/core/kit'
import type { BroadFamily, Clip, Family, Kit, Pad } from '@heliaster/core/kit'
import { memo, useMemo } from 'react'
import { View } from 'react-native'

import { useClipLooks } from '../audio/files/clip-look'
import type { MarkName } from '../ui/drawing/CentreMark'
import { Rim } from '../ui/drawing/Rim'
import { Star } from '../ui/drawing/Star'
import { usePalette } from '../ui/theme/theme'

/** How much of a pad's face its star takes; round it lies the outline of its hit. */
export const STAR_SHARE = 0.76

/** A finer kind has the mark of its family, changed as the sound is. */
const FAMILY_MARKS: Readonly<Record<BroadFamily, MarkName> & Partial<Record<Family, MarkName>>> = {
  kick: 'disc',
  snare: 'square',
  hat: 'bars',
  openHat: 'openBars',
  tom: 'ring',
  cymbal: 'peak',
  ride: 'lowPeak',
  splash: 'smallPeak',
  clap: 'pair',
  shaker: 'diamond',
  bell: 'drop',
  wood: 'post',
  noise: 'zigzag',
  other: 'dot',
}

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly size: number
  /** The cell that sounds. */
  readonly lit?: { readonly band: number; readonly turn: number }
}

/** What a pad is, at a glance: bands and turns as a star, its family in the middle, its hardest hit round the rim. */
export const PadGlyph = memo(function PadGlyph({ kit, pad, size, lit }: Props) {
  const palette = usePalette()
  const { tint, family } = padSettings(kit, pad)
  const filled = useMemo(() => filledPad(kit, pad), [kit, pad])
  const clip = useMemo(() => faceClip(filled), [filled])
  const clips = useMemo(() => (clip ? [clip] : []), [clip])
  const lookOf = useClipLooks(clips)
  const look = clip && lookOf(clip)
  const star = Math.round(size * STAR_SHARE)
  return (
    <View style={{ width: size, height: size, alignItems: 'center', justifyContent: 'center' }}>
      {look && (
        <View style={{ position: 'absolute', inset: 0 }}>
          <Rim look={look} size={size} colour={lit ? palette.coral : tint ? palette.tints[tint] : palette.kelp} />
        </View>
      )}
      <Star turns={starTurns(filled)} size={star} tint={tint} lit={lit} mark={FAMILY_MARKS[family] ?? FAMILY_MARKS[broadFamily(family)]} />
    </View>
  )
})

export const starTurns = (pad: Pad): number[] => pad.bands.map((band) => band.turns.length)

/** The hit that a pad is known by: of the hardest band the first turn, of its first ray that has one. */
export function faceClip(pad: Pad): Clip | undefined {
  for (const { turns } of [...pad.bands].reverse())
    for (const { clips } of turns)
      for (const { id } of pad.rays) {
        const clip = clips[id]
        if (clip && clip !== 'intendedSilence') return clip
      }
  return clipsOfPad(pad)[0]
}
