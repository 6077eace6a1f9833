import { STRIKES_TO_TEACH, strengths, taughtCurve } from '@heliaster/core/hands'
import type { Strength, Taught, VelocityCurve } from '@heliaster/core/hands'
import { useEffect, useEffectEvent, useState } from 'react'
import { View } from 'react-native'

import { handsState } from '../../../audio/playing/hands/hands'
import { Button } from '../../../ui/controls/Button'
import { Progress } from '../../../ui/layout/Progress'
import { Text } from '../../../ui/layout/Text'

interface Props {
  readonly input: string
  readonly steps: number
  readonly onTaught: (curve: VelocityCurve) => void
  readonly onEnd: () => void
}

const NOTHING: Taught = { soft: [], middling: [], hard: [] }
const HOW: Readonly<Record<Strength, string>> = { soft: 'softly', middling: 'at middle strength', hard: 'hard' }

/** Asks for soft, middling and hard strikes of an input, and makes the curve that lets them sound so. */
export function Teach({ input, steps, onTaught, onEnd }: Props) {
  const [taught, setTaught] = useState<Taught>(NOTHING)
  const [fault, setFault] = useState<string>()
  const wanted = strengths.find((strength) => taught[strength].length < STRIKES_TO_TEACH)
  const take = useEffectEvent((came: number) => {
    if (!wanted) return
    const next = { ...taught, [wanted]: [...taught[wanted], came] }
    setFault(undefined)
    if (strengths.some((strength) => next[strength].length < STRIKES_TO_TEACH)) return setTaught(next)
    const curve = taughtCurve(next, steps)
    setTaught(NOTHING)
    if (typeof curve === 'string') return setFault(curve)
    onTaught(curve)
    onEnd()
  })
  useEffect(
    () =>
      handsState.subscribe(({ strokes }, before) => {
        if (strokes[input] && strokes[input] !== before.strokes[input]) take(strokes[input].came)
      }),
    [input],
  )
  const done = strengths.reduce((sum, strength) => sum + taught[strength].length, 0)
  return (
    <View role="group" aria-label="Teach the curve" style={{ gap: 8, maxWidth: 420 }}>
      <Text role="status">
        {fault ?? (wanted && `Strike ${HOW[wanted]}, ${STRIKES_TO_TEACH} times: ${taught[wanted].length} of ${STRIKES_TO_TEACH} heard.`)}
      </Text>
      <Progress label="Strikes heard" share={done / (STRIKES_TO_TEACH * strengths.length)} />
      <Button label="Leave the curve as it is" onPress={onEnd} />
    </View>
  )
}
