import type { Kit, KitEdit, OwnSettings, Pad } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Chip } from '../../../ui/controls/Chip'
import { Chips } from '../../../ui/controls/Chips'
import { Pool } from '../../../ui/controls/Pool'
import type { PoolAxis } from '../../../ui/controls/Pool'
import { NumberField } from '../../../ui/controls/Slider'
import { placesOf } from '../../../ui/controls/scale'
import { Text } from '../../../ui/layout/Text'
import type { DrawnHit } from '../chart/use-drawn-hit'
import { driveOf, keptLevel } from '../controls/kept-drive'
import { hasOwn, isSet } from '../whom/target'
import type { ShapeTarget } from '../whom/target'
import { EndsStrip, STRIP_PX } from './EndsStrip'
import { Glyph } from './glyphs'
import { quickPools } from './pools'
import type { QuickPool } from './pools'
import { softestEdits, softestStart } from '../responses/softest-start'
import { reversedOf, reverseEdits } from './reverse'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: ShapeTarget
  readonly drawn: DrawnHit | undefined
  readonly onEdits: (edits: KitEdit[]) => void
  /** Edits of what answers to velocity. */
  readonly onResponses: (edits: KitEdit[]) => void
  readonly onDone: () => void
}

const KINDS = [
  { value: 'off', text: 'None' },
  { value: 'lowPass', text: 'Low' },
  { value: 'highPass', text: 'High' },
  { value: 'bandPass', text: 'Band' },
] as const

const COLUMNS = 3
const GAP = 10
const POOL_PX = 64

/** What makes any noise a kick or a hat, all at once under the thumb. */
export function QuickShape({ pad, target, drawn, onEdits, onResponses, onDone }: Props) {
  const [width, setWidth] = useState(358)
  const [chosen, choose] = useState(0)
  const { settings } = target
  const set = (own: OwnSettings) => onEdits(target.edits(own))
  const pools = quickPools(settings, drawn?.soundSeconds ?? 0.4, (next) =>
    keptLevel(settings, drawn?.samples, { ...driveOf(settings), ...next }),
  )
  const pool = pools[chosen]!
  const rayId = target.whom.kind === 'ray' ? target.whom.rayId : undefined
  const reversed = reversedOf(target.pads, target.whom)
  const poolWidth = Math.floor((width - (COLUMNS - 1) * GAP) / COLUMNS)
  const kind = KINDS.find(({ value }) => value === settings.choices.filter1Kind)?.value
  return (
    <View onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)} style={{ gap: 10 }}>
      <View style={{ minHeight: STRIP_PX }}>
        {drawn && (
          <EndsStrip
            levels={drawn.clipLevels}
            clipSeconds={drawn.clipSeconds}
            startSeconds={settings.values.startSeconds}
            endSeconds={settings.values.endSeconds}
            softestSeconds={softestStart(settings, rayId)}
            onSoftest={(seconds) => onResponses(softestEdits(pad, settings, rayId, seconds))}
            onSlide={(ends) => set({ values: ends })}
            onDone={onDone}
          />
        )}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: GAP }}>
        {pools.map((one, i) => (
          <Pool
            key={one.title}
            title={one.title}
            x={one.x}
            y={one.y}
            width={poolWidth}
            height={POOL_PX}
            isChosen={i === chosen}
            isOwn={hasOwn(target, one.names)}
            onChoose={() => choose(i)}
            onSlide={(x, y) => set(one.set(x, y))}
            onDone={onDone}
          >
            {(wide, high) => <Glyph width={wide} height={high} heights={one.heights} rest={one.rest} />}
          </Pool>
        ))}
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <View style={{ flex: 1, minWidth: 0 }}>
          <Chips
            label="Filter"
            hideLabel
            isOneLine
            options={KINDS}
            value={kind}
            onChoose={(next) => {
              set({ choices: { filter1Kind: next } })
              onDone()
            }}
          />
        </View>
        <Chip
          role="checkbox"
          text={reversed === 'some' ? 'Some backwards' : 'Backwards'}
          isChosen={reversed === 'all'}
          onPress={() => {
            onEdits(reverseEdits(target.pads, target.whom, reversed !== 'all'))
            onDone()
          }}
        />
      </View>
      <TypedPool
        pool={pool}
        canGoBack={isSet(target, pool.names)}
        inherits={target.inherits}
        onSet={(x, y) => {
          set(pool.set(x, y))
          onDone()
        }}
        onBack={() => {
          onEdits(target.back(pool.names))
          onDone()
        }}
      />
    </View>
  )
}

interface TypedProps {
  readonly pool: QuickPool
  readonly canGoBack: boolean
  readonly inherits: boolean
  readonly onSet: (x: number, y: number) => void
  readonly onBack: () => void
}

/** The chosen pool's numbers, typed; and the way back from them. */
function TypedPool({ pool: { title, x, y }, canGoBack, inherits, onSet, onBack }: TypedProps) {
  return (
    <View role="group" aria-label={`${title}, typed`} style={{ flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 44 }}>
      <TypedAxis title={title} axis={x} onNumber={(value) => onSet(value, y?.value ?? 0)} />
      {y && <TypedAxis title={title} axis={y} onNumber={(value) => onSet(x.value, value)} />}
      <View style={{ flex: 1 }} />
      <Button label={inherits ? 'As inherited' : 'Take away'} disabled={!canGoBack} onPress={onBack} />
    </View>
  )
}

interface AxisProps {
  readonly title: string
  readonly axis: PoolAxis
  readonly onNumber: (value: number) => void
}

function TypedAxis({ title, axis: { label, value, min, max, step, unit }, onNumber }: AxisProps) {
  return (
    <View style={{ alignItems: 'flex-start' }}>
      <Text look="label" tone="muted" numberOfLines={1} style={{ fontSize: 11, lineHeight: 12, marginBottom: -8 }}>
        {label}
      </Text>
      <NumberField
        label={`${title}, ${label}${unit === '' ? '' : `, ${unit}`}`}
        text={value.toFixed(placesOf(step))}
        unit={unit}
        width={52}
        onNumber={(typed) => onNumber(Math.min(max, Math.max(min, typed)))}
      />
    </View>
  )
}
