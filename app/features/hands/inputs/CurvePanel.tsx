import { MOST_CURVE_POINTS, MOST_STEPS, withPoint } from '@heliaster/core/hands'
import type { VelocityCurve } from '@heliaster/core/hands'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { handSettings, setInput, settingsOfInput } from '../../../audio/playing/hands/hand-settings'
import { handsState } from '../../../audio/playing/hands/hands'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { NumberField, Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { CurveChart } from './CurveChart'
import { CURVE_STARTS, startOf, withOneMore } from './curve-starts'
import { Teach } from './Teach'

const CHART_PX = 260

/** How strong the strikes of an input sound: drawn, chosen, taught, or in fixed steps. */
export function CurvePanel({ input }: { readonly input: string }) {
  const { curve } = useStore(handSettings, (state) => settingsOfInput(input, state))
  const stroke = useStore(handsState, (state) => state.strokes[input])
  const [chosen, setChosen] = useState(1)
  const [before, setBefore] = useState<VelocityCurve>()
  const [isTeaching, setTeaching] = useState(false)
  const index = Math.min(chosen, curve.points.length - 1)
  const put = (changed: VelocityCurve) => setInput(input, { curve: changed })
  const taught = (changed: VelocityCurve) => {
    setBefore(curve)
    put(changed)
  }
  if (isTeaching) return <Teach input={input} steps={curve.steps} onTaught={taught} onEnd={() => setTeaching(false)} />
  return (
    <View style={{ gap: 12 }}>
      <CurveChart curve={curve} size={CHART_PX} stroke={stroke} chosen={index} onChoose={setChosen} onCurve={put} />
      <Text look="small" tone="muted" role="status">
        {stroke
          ? `The last strike came as ${stroke.came} and sounded as ${stroke.velocity}.`
          : 'Strike something, and it is drawn on the curve.'}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label="Teach it" onPress={() => setTeaching(true)} />
        {before && (
          <Button
            label="Put the curve back"
            onPress={() => {
              put(before)
              setBefore(undefined)
            }}
          />
        )}
      </View>
      <Chips
        label="Begin with"
        options={CURVE_STARTS}
        value={startOf(curve)}
        onChoose={(wanted) => put({ ...curve, points: [...CURVE_STARTS.find(({ value }) => value === wanted)!.points] })}
      />
      <CurvePoint curve={curve} index={index} onCurve={put} onChoose={setChosen} />
      <Slider
        label="Fixed steps"
        value={curve.steps}
        min={0}
        max={MOST_STEPS}
        step={1}
        unit=""
        format={(steps) => (steps === 0 ? 'none' : `${steps}`)}
        onSlide={(steps) => put({ ...curve, steps })}
        onDone={() => undefined}
      />
    </View>
  )
}

interface PointProps {
  readonly curve: VelocityCurve
  readonly index: number
  readonly onCurve: (curve: VelocityCurve) => void
  readonly onChoose: (index: number) => void
}

/** The chosen point, typed; and one more, or one less. */
function CurvePoint({ curve, index, onCurve, onChoose }: PointProps) {
  const { at, to } = curve.points[index]!
  const more = withOneMore(curve, MOST_CURVE_POINTS)
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 }}>
      <Text look="label" tone="muted">
        Point {index + 1} comes as
      </Text>
      <NumberField
        label="Comes as, 1 to 127"
        text={`${at}`}
        unit=""
        width={44}
        onNumber={(value) => onCurve(withPoint(curve, index, value, to))}
      />
      <Text look="label" tone="muted">
        sounds as
      </Text>
      <NumberField
        label="Sounds as, 1 to 127"
        text={`${to}`}
        unit=""
        width={44}
        onNumber={(value) => onCurve(withPoint(curve, index, at, value))}
      />
      <Button
        label="One more point"
        disabled={!more}
        onPress={() => {
          onCurve(more!.curve)
          onChoose(more!.index)
        }}
      />
      <Button
        label="Remove this point"
        disabled={curve.points.length <= 2}
        onPress={() => onCurve({ ...curve, points: curve.points.filter((_, i) => i !== index) })}
      />
    </View>
  )
}
