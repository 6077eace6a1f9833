import type { Kit, Pad, Source } from '@heliaster/core/kit'
import { padSettings } from '@heliaster/core/kit'
import type { TakeTarget } from '@heliaster/core/place'
import { useState } from 'react'
import { View } from 'react-native'

import { live } from '../../audio/recording/live'
import { startTake, stopTake } from '../../audio/recording/recorder'
import { useRecorder } from '../../audio/recording/use-recorder'
import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { Sheet } from '../../ui/layout/Sheet'
import { Text } from '../../ui/layout/Text'
import { LiveWave, RecordButton } from '../record'
import { FoundTakes } from './FoundTakes'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: TakeTarget
  readonly onClose: () => void
}

type Way = 'takes' | 'guided'
const WAYS = [
  { value: 'takes', text: 'Takes' },
  { value: 'guided', text: 'Soft, middle, hard' },
] as const
const PASSES = ['soft', 'middle', 'hard'] as const

/** Records straight onto a pad: strikes become its turns, or in a guided pass its bands. */
export function RecordHereSheet({ kit, pad, target, onClose }: Props) {
  const { state, problem } = useRecorder()
  const [way, setWay] = useState<Way>('takes')
  const [borders, setBorders] = useState<number[]>([])
  const [taken, setTaken] = useState<Source>()
  const isRunning = state === 'recording' || state === 'waiting'
  const isGuided = way === 'guided' && target.kind === 'pad'
  const start = () => {
    setBorders([])
    setTaken(undefined)
    void startTake(setTaken)
  }
  const close = () => {
    if (isRunning) void stopTake()
    onClose()
  }
  if (taken)
    return (
      <FoundTakes kit={kit} pad={pad} target={target} source={taken} borders={isGuided ? borders : []} onAgain={start} onClose={onClose} />
    )
  return (
    <Sheet title={`Record onto ${nameOf(kit, pad, target)}`} isOpen onClose={close}>
      {target.kind === 'pad' && !isRunning && <Chips label="What" hideLabel options={WAYS} value={way} onChoose={setWay} />}
      <Text style={{ textAlign: 'center', minHeight: 44 }} role="status">
        {wordsOf(state, isGuided, borders.length, target)}
      </Text>
      <LiveWave isOpen={state === 'armed' || isRunning} isRecording={state === 'recording'} />
      <View style={{ alignItems: 'center', gap: 12 }}>
        <RecordButton state={state} size={96} stopLabel="Stop" onStart={start} onStop={() => void stopTake()} />
        {isRunning && isGuided && borders.length < PASSES.length - 1 && (
          <Button label={`Next: ${PASSES[borders.length + 1]}`} kind="main" onPress={() => setBorders([...borders, live.seconds])} />
        )}
      </View>
      {problem && (
        <Text look="small" tone="coral" role="alert">
          {problem}
        </Text>
      )}
    </Sheet>
  )
}

function wordsOf(state: string, isGuided: boolean, pass: number, target: TakeTarget): string {
  if (state === 'keeping') return 'Keeping the recording'
  if (state !== 'recording' && state !== 'waiting')
    return target.kind === 'turn' ? 'Press and strike once, or a few times to choose from.' : 'Press, then strike five times or more.'
  return isGuided ? `Strike ${PASSES[pass]}, several times.` : 'Strike. The best are chosen afterwards.'
}

export function nameOf(kit: Kit, pad: Pad, target: TakeTarget): string {
  const name = padSettings(kit, pad).name || 'the pad'
  if (target.kind === 'band') return `${name}, band ${pad.bands.findIndex((band) => band.id === target.bandId) + 1}`
  if (target.kind === 'ray') return `${name}, ${pad.rays.find((ray) => ray.id === target.rayId)?.name ?? 'ray'}`
  if (target.kind === 'pad') return name
  const band = pad.bands.findIndex((one) => one.turns.some((turn) => turn.id === target.turnId))
  const turn = pad.bands[band]?.turns.findIndex((one) => one.id === target.turnId) ?? 0
  return `${name}, band ${band + 1}, turn ${turn + 1}`
}
