import { Slider } from '../ui/controls/Slider'

interface Props {
  /** Said where several are edited at once. */
  readonly label?: string
  readonly value: number
  readonly onSlide: (value: number) => void
  readonly onDone: () => void
}

/** From left to right, -1..1. */
export function PanSlider({ label = 'Pan', ...rest }: Props) {
  return <Slider label={label} min={-1} max={1} step={0.01} unit="" neutral={0} format={panWords} {...rest} />
}

function panWords(pan: number): string {
  return Math.abs(pan) < 0.005 ? 'middle' : `${pan < 0 ? 'L' : 'R'} ${Math.round(Math.abs(pan) * 100)}`
}

/** Cents, shown and typed as semitones. */
export function TuneSlider({ label = 'Tune', value, onSlide, onDone }: Props) {
  return (
    <Slider
      label={label}
      value={value / 100}
      min={-48}
      max={48}
      step={0.01}
      unit="st"
      neutral={0}
      onSlide={(semitones) => onSlide(Math.round(semitones * 100))}
      onDone={onDone}
    />
  )
}
