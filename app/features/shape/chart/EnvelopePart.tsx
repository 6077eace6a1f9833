import type { Kit, Pad } from '@heliaster/core/kit'

import { Text } from '../../../ui/layout/Text'
import type { ShapeTarget } from '../whom/target'
import { EnvelopeActs, EnvelopeStarts } from './EnvelopeActs'
import { EnvelopeBar } from './EnvelopeBar'
import { PointFields } from './PointFields'
import { StretchFields } from './StretchFields'
import type { DrawnHit } from './use-drawn-hit'
import type { EnvelopeWork } from './use-envelope'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: ShapeTarget
  readonly work: EnvelopeWork
  readonly drawn: DrawnHit | undefined
  readonly baseHz: number | undefined
  readonly hasBar: boolean
}

/** The envelope that is drawn on the chart: its chosen point in numbers, several at once, and all of it. */
export function EnvelopePart({ kit, pad, target, work, drawn, baseHz, hasBar }: Props) {
  const { envelope, chosen } = work
  const { mode } = target.settings
  const hasPoints = envelope.points.length > 0
  const clock = { sampleRateHz: drawn?.clipRateHz ?? 48000, tempoBpm: kit.tempoBpm }
  return (
    <>
      {hasBar && <EnvelopeBar envelope={work} />}
      {work.words && (
        <Text look="small" role="status">
          {work.words}
        </Text>
      )}
      {hasPoints ? (
        <>
          {chosen.length === 1 ? (
            <PointFields
              work={work}
              index={chosen[0]!}
              clock={clock}
              baseHz={baseHz}
              tuningA4Hz={kit.tuningA4Hz}
              canSustain={mode === 'hold' || mode === 'loopUntilLetGo'}
            />
          ) : (
            <>
              {chosen.length === 0 && (
                <Text look="small" tone="muted">
                  Touch a point to type it; drag the line to bend it; a tap beside makes a point, a drag over empty ground chooses several.
                </Text>
              )}
              <StretchFields work={work} />
            </>
          )}
        </>
      ) : (
        <EnvelopeStarts work={work} />
      )}
      <EnvelopeActs kit={kit} pad={pad} target={target} work={work} />
    </>
  )
} // prettier-ignore
