import { padById } from '@heliaster/core/kit'
import type { Kit, PadId, Performance } from '@heliaster/core/kit'
import { isHeard, onOtherPad, padsHeard } from '@heliaster/core/performance'
import { useState } from 'react'
import { View } from 'react-native'

import { PadGlyph } from '../../../kit-view/PadGlyph'
import { padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Row } from '../../../ui/layout/Row'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { strikesWords } from '../words'
import type { PerformanceEdits } from './use-performance-edits'

interface Props extends PerformanceEdits {
  readonly kit: Kit
  readonly performance: Performance
}

/** Which pads were played, and all strikes of one put on another. */
export function PadsPart({ kit, performance, edit }: Props) {
  const [moving, setMoving] = useState<PadId>()
  const nameOf = (padId: PadId) => {
    const pad = padById(kit, padId)
    return pad ? padName(kit, pad) : 'A pad that is gone'
  }
  const countOf = (padId: PadId) =>
    performance.events.filter((event) => event.type === 'strike' && event.padId === padId && isHeard(performance, event)).length
  return (
    <View role="list" aria-label="Pads that were played" style={{ maxWidth: 620 }}>
      {padsHeard(performance).map((padId, i) => {
        const pad = padById(kit, padId)
        return (
          <Row key={padId} hasLine={i > 0}>
            <View style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 12, paddingVertical: 6 }}>
              {pad && <PadGlyph kit={kit} pad={pad} size={36} />}
              <View style={{ flex: 1, minWidth: 0 }}>
                <Text look="strong" numberOfLines={1}>
                  {nameOf(padId)}
                </Text>
                <Text look="small" tone="muted">
                  {strikesWords(countOf(padId))}
                </Text>
              </View>
              <Button label="Put on another" onPress={() => setMoving(padId)} />
            </View>
          </Row>
        )
      })}
      {moving && (
        <Sheet title={`Put the strikes of ${nameOf(moving)} on`} isOpen onClose={() => setMoving(undefined)}>
          <Chips
            label="Pad"
            hideLabel
            options={kit.pads.filter(({ id }) => id !== moving).map((pad) => ({ value: pad.id as string, text: padName(kit, pad) }))}
            value={undefined}
            onChoose={(padId) => {
              edit(onOtherPad(performance, moving, padId as PadId))
              setMoving(undefined)
            }}
          />
        </Sheet>
      )}
    </View>
  )
}
