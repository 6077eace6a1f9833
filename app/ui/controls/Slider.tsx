// Our own: the elements' slider knows no keys, no curve and no value in words for a screen reader.
import { useRef } from 'react'
import { View } from 'react-native'

import { Text } from '../layout/Text'
import { TOUCH, usePalette } from '../theme/theme'
import { usePointerDrag } from '../pointer/use-pointer-drag'
import { placesOf, scaleOf } from './scale'
import { TypedField } from './TypedField'

interface Props {
  readonly label: string
  /** What it is called where its label is a sentence that changes with it. */
  readonly spoken?: string
  readonly value: number
  readonly min: number
  readonly max: number
  readonly step: number
  readonly unit: string
  /** How a value reads; by default with the decimals of its step. */
  readonly format?: (value: number) => string
  /** Follows the drag. */
  readonly onSlide: (value: number) => void
  /** The drag, key or typed number is done. */
  readonly onDone: () => void
  /** Where the line is marked as the value that changes nothing. */
  readonly neutral?: number
  /** Bends the scale so that small values get more room, for times and frequencies. */
  readonly power?: number
}

/** A value on a line, filled from where it changes nothing: dragged, stepped by arrow keys, or typed with its unit. */
export function Slider({ label, spoken = label, value, min, max, step, unit, format, onSlide, onDone, neutral, power = 1 }: Props) {
  const width = useRef(1)
  const shown = format ? format(value) : value.toFixed(placesOf(step))
  const { toShare, fromShare, snap } = scaleOf({ min, max, step, power })
  const drag = usePointerDrag(
    {
      onStart: (x) => onSlide(fromShare(x / width.current)),
      onMove: (x) => onSlide(fromShare(x / width.current)),
      onEnd: onDone,
    },
    { isSideways: true },
  )
  const nudge = (by: number) => {
    onSlide(snap(value + by))
    onDone()
  }
  const keys: Record<string, number> = {
    ArrowRight: step,
    ArrowUp: step,
    ArrowLeft: -step,
    ArrowDown: -step,
    PageUp: 10 * step,
    PageDown: -10 * step,
    Home: min - max,
    End: max - min,
  }
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
      <View
        ref={drag}
        role="slider"
        tabIndex={0}
        aria-label={spoken}
        aria-valuemin={min}
        aria-valuemax={max}
        aria-valuenow={value}
        aria-valuetext={`${shown} ${unit}`}
        onLayout={(event) => (width.current = event.nativeEvent.layout.width)}
        {...{
          onKeyDown: (event: { key: string; preventDefault(): void }) => {
            if (!(event.key in keys)) return
            event.preventDefault()
            nudge(keys[event.key])
          },
        }}
        style={{ flex: 1, minHeight: TOUCH, justifyContent: 'flex-end' }}
      >
        <Text look="label" tone="muted" style={{ userSelect: 'none' }}>
          {label}
        </Text>
        <Line share={toShare(value)} neutral={neutral === undefined ? undefined : toShare(neutral)} />
      </View>
      <NumberField label={`${spoken}, ${unit || 'number'}`} text={shown} unit={unit} onNumber={(n) => nudge(snap(n) - value)} />
    </View>
  )
}

/** The line with its knob, filled from where the value changes nothing. */
function Line({ share, neutral }: { readonly share: number; readonly neutral: number | undefined }) {
  const palette = usePalette()
  const from = neutral ?? 0
  return (
    <View style={{ height: 24, justifyContent: 'center' }}>
      <View style={{ height: 2, backgroundColor: palette.line }} />
      {neutral !== undefined && (
        <View style={{ position: 'absolute', left: `${neutral * 100}%`, width: 1, height: 10, backgroundColor: palette.muted }} />
      )}
      <View
        style={{
          position: 'absolute',
          height: 4,
          borderRadius: 2,
          left: `${Math.min(share, from) * 100}%`,
          width: `${Math.abs(share - from) * 100}%`,
          backgroundColor: palette.kelp,
        }}
      />
      <View
        style={{
          position: 'absolute',
          left: `${share * 100}%`,
          marginLeft: -9,
          width: 18,
          height: 18,
          borderRadius: 9,
          backgroundColor: palette.kelp,
          borderWidth: 3,
          borderColor: palette.raised,
        }}
      />
    </View>
  )
}

interface FieldProps {
  readonly label: string
  readonly text: string
  readonly unit: string
  readonly width?: number
  readonly onNumber: (value: number) => void
  /** What an emptied field means; without it the number is put back. */
  readonly onEmpty?: () => void
}

/** A number that is typed where it stands. What is no number is put back. */
export function NumberField({ label, text, unit, width, onNumber, onEmpty }: FieldProps) {
  const take = (typed: string) => {
    const value = numberIn(typed)
    if (value !== undefined) onNumber(value)
    else if (typed.trim() === '') onEmpty?.()
  }
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
      <TypedField label={label} text={text} width={width} inputMode="decimal" onText={take} />
      <Text look="figures" tone="muted" style={{ minWidth: 24 }}>
        {unit}
      </Text>
    </View>
  )
}

/** The number that was typed, whatever unit stands behind it. */
export function numberIn(typed: string): number | undefined {
  const digits = typed.replace(',', '.').replace(/[^\d.+-].*$/, '')
  const value = digits === '' ? NaN : Number(digits)
  return Number.isFinite(value) ? value : undefined
}
