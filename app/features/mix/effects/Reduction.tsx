import type { BusId, Insert } from '@heliaster/core/kit'
import { useEffect, useRef, useState } from 'react'
import { View } from 'react-native'
import Svg, { Path } from 'react-native-svg'

import { takenByEffect } from '../../../audio/engine/sound'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'

const LOOK_MS = 50
const POINTS = 96
const HEIGHT = 56
const MOST_DB = 24

/** By how much an effect lowers, over the last seconds: it hangs from the top like water from a ledge. */
export function Reduction({ insert, busId }: { readonly insert: Insert; readonly busId: BusId | undefined }) {
  const palette = usePalette()
  const past = useRef<number[]>(new Array<number>(POINTS).fill(0))
  const [shown, setShown] = useState<{ path: string; db: number }>({ path: '', db: 0 })
  const { id } = insert
  useEffect(() => {
    const timer = setInterval(() => {
      past.current = [...past.current.slice(1), takenByEffect(id, busId)]
      const points = past.current.map((db, i) => `L${((i / (POINTS - 1)) * 100).toFixed(2)} ${((Math.min(MOST_DB, db) / MOST_DB) * HEIGHT).toFixed(1)}`)
      setShown({ path: `M0 0${points.join('')}L100 0Z`, db: Math.max(...past.current.slice(-8)) })
    }, LOOK_MS)
    return () => clearInterval(timer)
  }, [id, busId])
  return (
    <View role="img" aria-label={`Takes away ${shown.db.toFixed(0)} dB`} style={{ height: HEIGHT, borderRadius: 8, overflow: 'hidden', backgroundColor: palette.faint }}>
      <Svg width="100%" height={HEIGHT} viewBox={`0 0 100 ${HEIGHT}`} preserveAspectRatio="none" aria-hidden>
        <Path d={shown.path} fill={palette.water} />
      </Svg>
      <Text look="small" tone="waterInk" style={{ position: 'absolute', right: 8, bottom: 4 }}>
        {shown.db < 0.05 ? 'takes nothing away' : `takes away ${shown.db.toFixed(1)} dB`}
      </Text>
    </View>
  )
} // prettier-ignore
