import { divisionOf, grooveBeats, lapBeats, stepBeat, stepsOf } from '@heliaster/core/groove'
import type { Groove, GrooveString, Kit } from '@heliaster/core/kit'
import { useEffect, useRef } from 'react'
import { View } from 'react-native'
import Svg, { Circle, Line } from 'react-native-svg'
import { useStore } from 'zustand'

import { chosenGroove, grooveBeat, grooveState } from '../../audio/playing/groove-player'
import { padName } from '../../kit-view/use-kit'
import { whileMoving } from '../../ui/drawing/while-moving'
import { Text } from '../../ui/layout/Text'
import { usePalette } from '../../ui/theme/theme'

const ROW_PX = 12
const MOST_ROWS = 9
const NAME_PX = 110
const RADIUS = 3.4

/** The groove that plays, small: which pads strike when, and where it is now. */
export function GrooveView({ kit }: { readonly kit: Kit }) {
  const palette = usePalette()
  const id = useStore(grooveState, (state) => state.grooveId)
  const groove = chosenGroove(kit, id)
  const hand = useRef<View>(null)
  const beats = groove ? grooveBeats(groove) : 0
  useEffect(() => {
    if (beats <= 0) return undefined
    return whileMoving(() => {
      const beat = grooveBeat()
      const element = hand.current as unknown as HTMLElement | null
      if (element) {
        element.style.opacity = beat === undefined || beat < 0 ? '0' : '1'
        element.style.left = `${(((beat ?? 0) % beats) / beats) * 100}%`
      }
      return beat !== undefined
    })
  }, [beats])
  if (!groove) return null
  const strings = groove.strings.filter((string) => string.beads.length > 0).slice(0, MOST_ROWS)
  if (strings.length === 0) return null
  const height = strings.length * ROW_PX
  return (
    <View role="img" aria-label={`The groove ${groove.name}`} style={{ flexDirection: 'row', marginHorizontal: 16, marginVertical: 8, paddingVertical: 6, borderRadius: 10, backgroundColor: palette.surface }}>
      <View style={{ width: NAME_PX, paddingLeft: 10 }}>
        {strings.map(({ padId }) => {
          const pad = kit.pads.find((one) => one.id === padId)
          return (
            <Text key={padId} look="small" tone="muted" numberOfLines={1} style={{ fontSize: 11, lineHeight: ROW_PX }}>
              {pad ? padName(kit, pad) : ''}
            </Text>
          )
        })}
      </View>
      <View style={{ flex: 1, height, marginRight: 10 }}>
        <Svg width="100%" height={height} aria-hidden style={{ overflow: 'visible' }}>
          {strings.map((string, row) => [
            <Line key={`line ${string.padId}`} x1="0" x2="100%" y1={(row + 0.5) * ROW_PX} y2={(row + 0.5) * ROW_PX} stroke={palette.faint} />,
            ...strikesOf(groove, string).map(({ key, share, velocity }) => (
              <Circle key={key} cx={`${100 * share}%`} cy={(row + 0.5) * ROW_PX} r={RADIUS * (0.5 + velocity / 254)} fill={palette.kelp} />
            )),
          ])}
        </Svg>
        <View ref={hand} style={{ position: 'absolute', top: 0, bottom: 0, width: 2, marginLeft: -1, backgroundColor: palette.coral, opacity: 0 }} />
      </View>
    </View>
  )
} // prettier-ignore

/** Where a string strikes within the groove, as shares of it: one that is shorter comes again, and what is early on the first step lies at the end. */
function strikesOf(groove: Groove, string: GrooveString) {
  const beats = grooveBeats(groove)
  const steps = stepsOf(groove, string)
  const division = divisionOf(groove, string)
  return lapBeats(groove, string).flatMap((lap) =>
    string.beads
      .filter(({ step }) => step < steps && lap + step / division < beats)
      .map(({ id, step, offset, velocity }) => {
        const share = (lap + stepBeat(groove, string, step, offset)) / beats
        return { key: `${id} ${lap}`, share: share - Math.floor(share), velocity }
      }),
  )
}
