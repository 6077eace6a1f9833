import type { Kit, Pad } from '@heliaster/core/kit'
import { backToFront, envelopeStarts, fitTo, upsideDown } from '@heliaster/core/shaping'
import { useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import type { ShapeTarget } from '../whom/target'
import { FollowSheet } from './FollowSheet'
import type { EnvelopeWork } from './use-envelope'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: ShapeTarget
  readonly work: EnvelopeWork
}

/** What is done to all of an envelope, or to its chosen stretch. */
export function EnvelopeActs({ kit, pad, target, work }: Props) {
  const { envelope, chosen, layer, copied } = work
  const [isFollowing, setFollowing] = useState(false)
  const hasPoints = envelope.points.length > 0
  const canFollow = layer === 'level' || layer === 'pitch'
  return (
    <>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {hasPoints && (
          <>
            <Button label="Fit to the hit" onPress={() => work.put(fitTo(envelope, work.hitSeconds))} />
            <Button label="Upside down" onPress={() => work.put(upsideDown(envelope, chosen, layer))} />
            <Button label="Back to front" disabled={envelope.points.length < 2} onPress={() => work.put(backToFront(envelope, chosen))} />
            <Button label={chosen.length > 1 ? 'Copy points' : 'Copy'} onPress={work.chart.onCopy} />
          </>
        )}
        {copied && <Button label={copied.isWhole ? 'Paste' : `Paste ${copied.envelope.points.length} points`} onPress={work.chart.onPaste} />}
        {canFollow && <Button label="Follow a hit" onPress={() => setFollowing(true)} />}
        {hasPoints && <Button label="Remove envelope" onPress={work.remove} />}
      </View>
      {isFollowing && canFollow && <FollowSheet kit={kit} pad={pad} target={target} layer={layer} onLay={work.lay} onClose={() => setFollowing(false)} />}
    </>
  ) // prettier-ignore
}

/** Envelopes to begin with, named by what they do. */
export function EnvelopeStarts({ work }: Pick<Props, 'work'>) {
  return (
    <View role="group" aria-label="Begin with" style={{ gap: 6 }}>
      <Text look="label" tone="muted">
        Begin with
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {envelopeStarts(work.layer).map((start) => (
          <Button key={start.name} label={start.name} onPress={() => work.begin(start)} />
        ))}
      </View>
    </View>
  )
}
