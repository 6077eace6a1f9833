import type { Envelope, Kit, Pad } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { hearAgain, padName } from '../../../kit-view/use-kit'
import { Button, IconButton } from '../../../ui/controls/Button'
import { Row } from '../../../ui/layout/Row'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import type { ShapeTarget } from '../whom/target'
import { levelOf, pitchOf } from './follow'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: ShapeTarget
  readonly layer: 'level' | 'pitch'
  readonly onLay: (envelope: Envelope, words: string) => void
  readonly onClose: () => void
}

/** Which hit is measured, so that its level or its pitch is laid on this one. */
export function FollowSheet({ kit, pad, target, layer, onLay, onClose }: Props) {
  const [busy, setBusy] = useState<Pad['id']>()
  const [words, setWords] = useState<string>()
  const others = kit.pads.filter((other) => other.id !== pad.id && other.bands.some((band) => band.turns.length > 0))
  const follow = async (other: Pad) => {
    setBusy(other.id)
    setWords(undefined)
    const followed = await (layer === 'level' ? levelOf(kit, other, pad, target) : pitchOf(kit, other)).catch(() => ({
      envelope: undefined,
      words: `${padName(kit, other)} cannot be read now. Look at the Board for what is missing.`,
    }))
    setBusy(undefined)
    if (!followed.envelope) return setWords(followed.words)
    onLay(followed.envelope, followed.words)
    onClose()
  }
  return (
    <Sheet isOpen title={layer === 'level' ? 'Follow the level of a hit' : 'Follow the pitch of a hit'} onClose={onClose}>
      <View style={{ gap: 8 }}>
        <Text look="small" tone="muted">
          {layer === 'level'
            ? `${padName(kit, pad)} then dies away as the chosen hit does.`
            : `${padName(kit, pad)} then falls as the chosen hit does, from its own pitch.`}
        </Text>
        {words && (
          <Text look="small" tone="coral" role="status">
            {words}
          </Text>
        )}
        {others.length === 0 && <Text>There is no other pad with a sound in this kit. Put one beside it first.</Text>}
        <View role="list" aria-label="Hits to follow">
          {others.map((other, i) => (
            <Row key={other.id} hasLine={i > 0}>
              <Text numberOfLines={1} style={{ flex: 1 }}>
                {padName(kit, other)}
              </Text>
              <IconButton name="volume-high" label={`Hear ${padName(kit, other)}`} onPress={() => hearAgain(kit.id, other.id)} />
              <Button
                label="Follow"
                busy={busy === other.id}
                disabled={busy !== undefined}
                onPress={() => void follow(other)}
                style={{ marginLeft: 8 }}
              />
            </Row>
          ))}
        </View>
      </View>
    </Sheet>
  )
}
