import type { Pace } from '@heliaster/core/groove/rhythm'
import type { Pad, Source } from '@heliaster/core/kit'
import { useState } from 'react'

import { ThingsBar } from '../bench/ThingsBar'
import type { CutHit } from '../bench/use-source-cut'
import { RhythmPart } from './RhythmPart'
import { useRhythm } from './use-rhythm'

interface RhythmChosen {
  readonly things: readonly (readonly number[])[] | undefined
  readonly pace: Pace
  readonly isGuess: boolean
  readonly share: number
  readonly ownHits: boolean
  readonly setOwnHits: (own: boolean) => void
  readonly setPace: (pace: Pace) => void
  readonly setShare: (share: number) => void
}

/** What of a rhythm was heard, and what the person makes of it: until that is said, as it was heard. */
export function useRhythmChoice(source: Source, hits: readonly CutHit[], isAsked: boolean, kitBpm: number): RhythmChosen {
  const heard = useRhythm(source, hits, isAsked)
  const [own, setPace] = useState<Pace>()
  const [share, setShare] = useState(0)
  const [ownHits, setOwnHits] = useState(true)
  const first = Math.min(...hits.map(({ marker }) => marker.frame)) / source.info.sampleRateHz
  const guess: Pace = { tempoBpm: kitBpm, firstSeconds: first, stepsPerBeat: 4, swing: 0.5, beatsPerBar: 4, confidence: 0 }
  const isGuess = heard !== undefined && !heard.pace && !own
  return { things: heard?.things, pace: own ?? heard?.pace ?? guess, isGuess, share, ownHits, setOwnHits, setPace, setShare }
}

interface Props {
  readonly source: Source
  readonly hits: readonly CutHit[]
  readonly pads: readonly Pad[]
  readonly rhythm: RhythmChosen
  readonly kitBpm: number
  readonly takesTempo: boolean
  readonly onTakesTempo: (takes: boolean) => void
  readonly onHear: (item: CutHit) => void
}

const asHeard = () => undefined

/** What was struck, each heard by a tap, and how it goes. */
export function RhythmThings({ source, hits, pads, rhythm, kitBpm, takesTempo, onTakesTempo, onHear }: Props) {
  const { things, pace, isGuess, share, ownHits, setOwnHits, setPace, setShare } = rhythm
  return (
    <>
      <ThingsBar
        hits={hits}
        rate={source.info.sampleRateHz}
        things={things && { groups: things, change: asHeard }}
        pads={pads}
        onHear={onHear}
      />
      {things && (
        <RhythmPart
          {...{ pace, isGuess, share, ownHits, kitBpm, takesTempo, onTakesTempo }}
          onPace={setPace}
          onShare={setShare}
          onOwnHits={setOwnHits}
        />
      )}
    </>
  )
}
