import { hasSlidOut } from '@heliaster/core/hands'
import { lenderOf, padSettings } from '@heliaster/core/kit'
import type { Kit, Pad } from '@heliaster/core/kit'
import { memo, useRef } from 'react'
import { View } from 'react-native'

import { useKeyLabel } from '../audio/playing/hands/computer-keys'
import { FINGERS, handSettings } from '../audio/playing/hands/hand-settings'
import { leadByHand, letGoByHand, pressNoMore, strikeByHand } from '../audio/playing/hands/hands'
import { beginRepeats, endRepeats, isRepeating, leadRepeats } from '../audio/playing/hands/repeats'
import { useNoteName } from './note-name'
import { ringEdges } from '../ui/drawing/Star'
import { Text } from '../ui/layout/Text'
import { useTouches } from '../ui/pointer/use-touches'
import type { Touch } from '../ui/pointer/use-touches'
import { PadGlyph, STAR_SHARE } from './PadGlyph'
import { session, useSession } from './session'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly index: number
  readonly size: number
  readonly chosen?: boolean
  /** What stands under it, where that is not its name: a spot of a drum. */
  readonly words?: string
  /** Pads that sound from this face: it lights with them. */
  readonly behind?: readonly Pad[]
  readonly withNote?: boolean
  readonly withKey?: boolean
}

const SOFTEST = 8
/** What is borrowed from another spot is drawn pale. */
const BORROWED_OPACITY = 0.5
/** As hard as Enter strikes the pad that has the focus. */
const BY_KEY = 96

/**
 * A pad as it is struck. The nearer to the star's centre the softer, as its rings are drawn; the strike leaves on
 * pointer down, before anything is drawn. Every finger is a strike of its own.
 */
export const PadFace = memo(function PadFace({ kit, pad, index, size, chosen, words, behind, withNote, withKey }: Props) {
  const noteName = useNoteName()
  const lender = lenderOf(kit, pad)
  const lit = useSession((state) => {
    const sounding = [pad, ...(behind ?? [])].find(({ id }) => state.sounding.includes(id))
    return sounding && state.lit[sounding.id]
  })
  const { mute, name: given, mode, values } = padSettings(kit, pad)
  const name = given || 'Unnamed pad'
  const key = useKeyLabel(index)
  const star = useStrikes(pad, values.rollSeconds > 0 && (mode === 'hold' || mode === 'loopUntilLetGo'))
  const [note] = pad.notes
  const sharers = withNote && note !== undefined ? kit.pads.filter((other) => other !== pad && other.notes.includes(note)) : []
  const sharing =
    sharers.length > 0 ? `shared with ${sharers.map((other) => padSettings(kit, other).name || 'Unnamed pad').join(', ')}` : ''
  const noteWords = withNote && note !== undefined ? `${noteName(note)}${sharing ? ' shared' : ''}` : undefined
  return (
    <View style={{ alignItems: 'center', width: size, gap: 3 }}>
      <View
        ref={star}
        role="button"
        tabIndex={0}
        aria-label={`${name}${key ? `, key ${key}` : ''}${lender ? `, empty: sounds as ${padSettings(kit, lender).name}` : ''}${sharing ? `, note ${noteName(note!)} ${sharing}` : ''}`}
        aria-pressed={chosen}
        {...{
          dataSet: { pad: pad.id },
          onKeyDown: (event: { key: string; repeat: boolean; preventDefault(): void }) => {
            if (event.repeat || (event.key !== 'Enter' && event.key !== ' ')) return
            event.preventDefault()
            session.setState({ padId: pad.id })
            strikeByHand({ input: FINGERS, key: 'Enter', padIds: [pad.id], came: BY_KEY })
          },
          onKeyUp: () => letGoByHand(FINGERS, 'Enter'),
          onBlur: () => letGoByHand(FINGERS, 'Enter'),
        }}
        style={{ borderRadius: size / 2, opacity: mute ? 0.4 : lender ? BORROWED_OPACITY : 1 }}
      >
        <PadGlyph kit={kit} pad={pad} size={size} lit={lit} />
      </View>
      <Text
        look="label"
        numberOfLines={1}
        style={{ fontSize: size < 60 ? 11 : 13, lineHeight: size < 60 ? 14 : 16, maxWidth: size + 8 }}
        tone={chosen ? 'kelp' : 'ink'}
      >
        {words ?? name}
      </Text>
      {(withNote || withKey) && (
        <Text look="figures" tone="muted" numberOfLines={1} style={{ fontSize: 11, lineHeight: 13, marginTop: -3 }}>
          {[noteWords, withKey ? key : undefined].filter(Boolean).join('  ')}
        </Text>
      )}
    </View>
  )
})

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

/** How hard a finger strikes a pad, 1..127: by where it is, or by how it presses where that is wished and the device tells. */
export function cameFrom(pad: Pad, touch: Touch): number {
  const { event } = touch
  const tells = event.pointerType !== 'mouse' && event.pressure > 0
  if (tells && handSettings.getState().fingers === 'pressure') return Math.max(1, Math.round(127 * event.pressure))
  return velocityAt(pad, shareOf(touch))
}

/**
 * Strikes of fingers; one that slides outward is repeated in the kit's tempo, as hard as the ring says that it has come to. On a pad
 * that goes on by itself a finger leads it: from left to right where in the clip, upward how hard.
 */
function useStrikes(pad: Pad, goesOn: boolean) {
  const downAt = useRef(new Map<number, number>())
  return useTouches(
    {
      onDown(touch) {
        const { id, event } = touch
        if (goesOn) lead(pad, touch)
        downAt.current.set(id, shareOf(touch))
        strikeByHand({ input: FINGERS, key: `${id}`, padIds: [pad.id], came: cameFrom(pad, touch), atMs: event.timeStamp })
        session.setState({ padId: pad.id })
      },
      onMove(touch) {
        if (goesOn) return lead(pad, touch)
        const share = shareOf(touch)
        if (isRepeating(touch.id)) leadRepeats(touch.id, velocityAt(pad, share))
        else if (hasSlidOut(downAt.current.get(touch.id) ?? share, share)) beginRepeats(touch.id, pad.id, velocityAt(pad, share))
      },
      onUp(id) {
        downAt.current.delete(id)
        endRepeats(id)
        if (goesOn) pressNoMore(pad.id)
        letGoByHand(FINGERS, `${id}`)
      },
    },
    { keepsPointer: true },
  )
}

const lead = (pad: Pad, { x, y, width, height }: Touch): void => leadByHand(pad.id, x / width, 1 - y / height)

/** How far from the middle of its star a finger is, in shares of the star's radius. */
const shareOf = ({ x, y, width, height }: Touch): number => Math.hypot(x - width / 2, y - height / 2) / (STAR_SHARE * (width / 2))
