import type { PadSettings } from '@heliaster/core/kit'

import { Text } from '../../../ui/layout/Text'
import { EnvelopeBar } from './EnvelopeBar'
import { removePoint } from '@heliaster/core/shaping'
import { PointFields } from './PointFields'
import type { EnvelopeWork } from './use-envelope'

interface Props {
  readonly envelope: EnvelopeWork
  readonly mode: PadSettings['mode']
  readonly hasBar: boolean
}

/** The envelope that is drawn on the chart, in numbers. */
export function EnvelopePart({ envelope: work, mode, hasBar }: Props) {
  const { envelope, point, layer } = work
  return (
    <>
      {hasBar && <EnvelopeBar envelope={work} />}
      {point !== undefined && envelope.points[point] ? (
        <PointFields
          envelope={envelope}
          index={point}
          layer={layer}
          canSustain={mode === 'hold' || mode === 'loopUntilLetGo'}
          onChange={(changed) => work.put(changed, point)}
          onPoint={work.setPoint}
          onBend={(bend) => work.slide({ ...envelope, points: envelope.points.map((one, i) => (i === point ? { ...one, bend } : one)) })}
          onBent={work.end}
          onRemove={() => work.put(removePoint(envelope, point), undefined)}
        />
      ) : (
        <Text look="small" tone="muted">
          {envelope.points.length === 0
            ? 'There is none yet. A new one spans the hit.'
            : 'Touch a point on the chart to type it; a tap beside them makes one.'}
        </Text>
      )}
    </>
  )
}
