// Renders the elements' LinearProgress.
import LinearProgress from '@rneui/themed/dist/LinearProgress'

import { usePalette } from '../theme/theme'

/** How much of something is done, 0..1, on a line. */
export function Progress({ label, share }: { readonly label: string; readonly share: number }) {
  const palette = usePalette()
  return (
    <LinearProgress
      aria-label={label}
      role="progressbar"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(share * 100)}
      value={share}
      animation={false}
      color={palette.kelp}
      trackColor={palette.faint}
      style={{ height: 3 }}
    />
  )
}
