import type { Kit, Performance, PerformanceId } from '@heliaster/core/kit'
import { Pressable, View } from 'react-native'

import { IconButton } from '../../ui/controls/Button'
import { Icon } from '../../ui/drawing/Icon'
import { Part } from '../../ui/layout/Part'
import { Row } from '../../ui/layout/Row'
import { Text } from '../../ui/layout/Text'
import { TOUCH, usePalette } from '../../ui/theme/theme'
import { asPlayed, useResound } from './use-resound'
import { heardStrikes, lengthWords, secondsOf, strikesWords } from './words'

interface Props {
  readonly kit: Kit
  readonly kept: readonly Performance[]
  readonly openId: PerformanceId | undefined
  readonly onOpen: (id: PerformanceId) => void
}

/** Performances that were kept of this kit. */
export function KeptList({ kept, openId, onOpen }: Props) {
  const palette = usePalette()
  const { heard, busy, hear, stop } = useResound()
  return (
    <Part name="Kept">
      {kept.length === 0 && (
        <Text look="small" tone="muted">
          None yet. A passage that is kept can be cut, drawn to a grid, put on other pads, sounded with other clips, and taken away as audio
          or MIDI.
        </Text>
      )}
      <View role="list" aria-label="Kept">
        {kept.map((performance, i) => {
          const { id, name } = performance
          const isHeard = heard === id
          return (
            <Row key={id} hasLine={i > 0}>
              <IconButton
                name={isHeard ? 'stop' : 'play-outline'}
                label={isHeard ? `Stop hearing ${name}` : `Hear ${name}`}
                on={isHeard}
                disabled={busy === id}
                onPress={() => (isHeard ? stop() : void hear(id, asPlayed(performance)))}
              />
              <Pressable
                role="button"
                aria-label={`Open ${name}`}
                aria-current={id === openId}
                onPress={() => onOpen(id)}
                style={{
                  ...{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 8, minWidth: 0, minHeight: TOUCH + 12 },
                  ...{ paddingHorizontal: 10, borderRadius: 8, backgroundColor: id === openId ? palette.waterWash : 'transparent' },
                }}
              >
                <View style={{ flex: 1, minWidth: 0 }}>
                  <Text look="strong" numberOfLines={1}>
                    {name}
                  </Text>
                  <Text look="small" tone="muted" numberOfLines={1}>
                    {`${strikesWords(heardStrikes(performance))}, ${lengthWords(secondsOf(performance))}${performance.edited ? ' · changed' : ''}`}
                  </Text>
                </View>
                <Icon name="chevron-right" size={20} color={palette.muted} />
              </Pressable>
            </Row>
          )
        })}
      </View>
    </Part>
  )
}
