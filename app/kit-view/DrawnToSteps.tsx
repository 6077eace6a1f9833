import { Slider } from '../ui/controls/Slider'

interface Props {
  /** 0 as played, 1 on the steps. */
  readonly share: number
  readonly onShare: (share: number) => void
}

/** By what share what was played is drawn to the steps of a groove. */
export function DrawnToSteps({ share, onShare }: Props) {
  return (
    <Slider
      label="Drawn to the steps (0 is as played)"
      spoken="Drawn to the steps"
      value={Math.round(100 * share)}
      min={0}
      max={100}
      step={1}
      unit="%"
      neutral={0}
      onSlide={(percent) => onShare(percent / 100)}
      onDone={() => undefined}
    />
  )
}
