import { padSettings } from '@heliaster/core/kit'
import type { Kit, Pad } from '@heliaster/core/kit'
import { memo } from 'react'
import { View } from 'react-native'

import { keyLabel } from '../audio/playing/computer-keys'
import { releasePad, strikePad } from '../audio/engine/sound'
import { useNoteName } from './note-name'
import { ringEdges, Star } from '../ui/drawing/Star'
import { Text } from '../ui/layout/Text'
import { useElement, useLatest } from '../ui/pointer/use-element'
import { session, useSession } from './session'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly index: number
  readonly size: number
  readonly chosen?: boolean
  readonly withNote?: boolean
  readonly withKey?: boolean
}

const SOFTEST = 8

/**
 * A pad as it is struck. The nearer to the star's centre the softer, as its rings are drawn; the strike leaves on
 * pointer down, before anything is drawn. Every finger is a strike of its own.
 */
export const PadFace = memo(function PadFace({ kit, pad, index, size, chosen, withNote, withKey }: Props) {
  const noteName = useNoteName()
  const lit = useSession((state) => state.lit[pad.id])
  const { tint, mute, name: given } = padSettings(kit, pad)
  const name = given || 'Unnamed pad'
  const key = keyLabel(index)
  const star = useStrikes(pad)
  return (
    <View style={{ alignItems: 'center', width: size, gap: 3 }}>
      <View
        ref={star}
        role="button"
        tabIndex={0}
        aria-label={`${name}${key ? `, key ${key}` : ''}`}
        aria-pressed={chosen}
        {...{
          dataSet: { pad: pad.id },
          onKeyDown: (event: { key: string; repeat: boolean; preventDefault(): void }) => {
            if (event.repeat || (event.key !== 'Enter' && event.key !== ' ')) return
            event.preventDefault()
            session.setState({ padId: pad.id })
            strikePad({ padId: pad.id, velocity: 96, key: 1 })
            releasePad(pad.id, 1)
          },
        }}
        style={{ borderRadius: size / 2, opacity: mute ? 0.4 : 1 }}
      >
        <Star turns={starTurns(pad)} size={size} tint={tint} lit={lit} />
      </View>
      <Text
        look="label"
        numberOfLines={1}
        style={{ fontSize: size < 60 ? 11 : 13, lineHeight: size < 60 ? 14 : 16, maxWidth: size + 8 }}
        tone={chosen ? 'kelp' : 'ink'}
      >
        {name}
      </Text>
      {(withNote || withKey) && (
        <Text look="figures" tone="muted" numberOfLines={1} style={{ fontSize: 11, lineHeight: 13, marginTop: -3 }}>
          {[withNote && pad.notes[0] !== undefined ? noteName(pad.notes[0]) : undefined, withKey ? key : undefined]
            .filter(Boolean)
            .join('  ')}
        </Text>
      )}
    </View>
  )
})

function starTurns(pad: Pad): number[] {
  return pad.bands.map((band) => band.turns.length)
}

/** Velocity of a strike at a share of the star's radius: each ring spans the velocities of its band. */
export function velocityAt(pad: Pad, share: number): number {
  const edges = ringEdges(pad.bands.length)
  const clamped = Math.min(1, Math.max(0, share))
  if (pad.bands.length < 2) return Math.round(SOFTEST + (127 - SOFTEST) * clamped)
  const ring = Math.max(
    0,
    Math.min(
      pad.bands.length - 1,
      edges.findLastIndex((edge) => edge <= clamped),
    ),
  )
  const from = pad.bands[ring].fromVelocity
  const to = (pad.bands[ring + 1]?.fromVelocity ?? 128) - 1
  const inRing = Math.min(1, Math.max(0, (clamped - edges[ring]) / (edges[ring + 1] - edges[ring])))
  return Math.max(1, Math.round(from + (to - from) * inRing))
}

function useStrikes(pad: Pad) {
  const latest = useLatest(pad)
  return useElement((element) => {
    element.style.touchAction = 'none'
    const down = (event: PointerEvent) => {
      if (event.button > 0) return
      const box = element.getBoundingClientRect()
      const distance = Math.hypot(event.clientX - box.left - box.width / 2, event.clientY - box.top - box.height / 2)
      const velocity = velocityAt(latest.current, distance / (box.width / 2))
      strikePad({ padId: latest.current.id, velocity, key: event.pointerId + 1 })
      session.setState({ padId: latest.current.id })
    }
    const up = (event: PointerEvent) => releasePad(latest.current.id, event.pointerId + 1)
    element.addEventListener('pointerdown', down)
    for (const type of ['pointerup', 'pointercancel', 'pointerleave'] as const) element.addEventListener(type, up)
    return () => {
      element.removeEventListener('pointerdown', down)
      for (const type of ['pointerup', 'pointercancel', 'pointerleave'] as const) element.removeEventListener(type, up)
    }
  })
}
