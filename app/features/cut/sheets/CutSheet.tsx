import { attacksOf, gridMarks, gridMoves } from '@heliaster/core/cut'
import { cutStartOf } from '@heliaster/core/kit'
import type { CutSettings, Source } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'
import { useStore } from 'zustand'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Sheet } from '../../../ui/layout/Sheet'
import { Toggle } from '../../../ui/controls/Toggle'
import { KeepStart, StartChips } from '../../starts'
import { changeLooks, cutLooks } from '../bench/looks'
import type { Analysis } from '../bench/use-source-cut'
import { BeatsWay, MarksWay, PartsWay, StrikesWay } from './CutWays'
import { tempoOfRecording } from './tempo-of-recording'

interface Props {
  readonly source: Source
  readonly analysis: Analysis
  /** Of the kit, to begin with where nothing else is known. */
  readonly tempoBpm: number
  readonly onCut: (changes: Partial<CutSettings>) => void
  /** Follows a drag, which `onSlid` ends. */
  readonly onSlide: (changes: Partial<CutSettings>) => void
  readonly onSlid: () => void
  readonly onClose: () => void
}

const WAYS = [
  { value: 'strikes', text: 'By strikes' },
  { value: 'parts', text: 'In equal parts' },
  { value: 'beats', text: 'On beats' },
  { value: 'marks', text: 'By markers only' },
] as const
const TIMES = [
  { value: 'seconds', text: 'Seconds' },
  { value: 'frames', text: 'Samples' },
  { value: 'beats', text: 'Beats' },
] as const
/** How this recording is cut. Markers that were pinned or made by hand stay whatever is chosen here. */
export function CutSheet({ source, analysis, tempoBpm, onCut, onSlide, onSlid, onClose }: Props) {
  const { grid } = source.cut
  const slides = { onCut, onSlide, onSlid }
  const looks = useStore(cutLooks)
  const [startId, setStartId] = useState<string>()
  const found = useMemo(() => tempoOfRecording(source, analysis), [source, analysis])
  const choose = (way: (typeof WAYS)[number]['value']) => {
    if (way === 'strikes') onCut({ grid: undefined })
    else if (way === 'marks') onCut({ grid: { kind: 'marks' } })
    else if (way === 'parts') onCut({ grid: { kind: 'parts', count: 8 } })
    else onCut({ grid: { kind: 'beats', tempoBpm: found?.bpm ?? tempoBpm, firstSeconds: found?.firstSeconds ?? 0, beats: 1 } })
  }
  return (
    <Sheet title="How to cut" isOpen onClose={onClose} actions={<Button label="Done" kind="main" onPress={onClose} />}>
      <Chips label="Cut" options={WAYS} value={grid?.kind ?? 'strikes'} onChoose={choose} />
      {!grid && <StrikesWay cut={source.cut} {...slides} />}
      {grid?.kind === 'parts' && <PartsWay grid={grid} {...slides} />}
      {grid?.kind === 'beats' && <BeatsWay grid={grid} found={found} onCut={onCut} />}
      {grid?.kind === 'marks' && <MarksWay source={source} onCut={onCut} />}
      {grid && grid.kind !== 'marks' && (
        <Toggle
          label="Marks move to the attacks near them"
          words={moveWords(source, analysis)}
          value={!source.cut.marksStay}
          onChange={(move) => onCut({ marksStay: move ? undefined : true })}
        />
      )}
      <Toggle
        label="Passed hits end what rings before them"
        words="Otherwise a hit that was passed cuts no other short."
        value={source.cut.passedEnd ?? false}
        onChange={(passedEnd) => onCut({ passedEnd: passedEnd || undefined })}
      />
      <StartChips
        label="Cut as"
        about="cut"
        plain="As it is"
        value={startId}
        onChoose={(start) => {
          setStartId(start?.id)
          if (start?.cut) onCut(startedCut(start.cut, grid))
        }}
      />
      <KeepStart label="Keep this way of cutting" settings={{ cut: cutStartOf(source.cut) }} />
      <Chips label="Times in" options={TIMES} value={looks.times} onChoose={(times) => changeLooks({ times })} />
      <Toggle
        label="Spectrogram"
        words="Which frequencies sound when, under the waveform."
        value={looks.hasSpectrogram}
        onChange={(hasSpectrogram) => changeLooks({ hasSpectrogram })}
      />
    </Sheet>
  )
}

/** A kept way of cutting; where the first beat falls stays where it is in this recording. */
function startedCut(cut: CutSettings, before: CutSettings['grid']): Partial<CutSettings> {
  const grid = cut.grid?.kind === 'beats' && before?.kind === 'beats' ? { ...cut.grid, firstSeconds: before.firstSeconds } : cut.grid
  return { attack: undefined, inTime: undefined, snap: undefined, marksStay: undefined, passedEnd: undefined, ...cut, grid }
}

/** How many marks moved, and how far, so that nobody has to guess where a slice begins. */
function moveWords({ cut }: Source, analysis: Analysis): string {
  if (!cut.grid) return ''
  const { mono, places } = analysis
  const rate = analysis.audio.sampleRateHz
  const marks = gridMarks(cut.grid, mono.length, rate, attacksOf(mono, rate, analysis, places))
  const moves = gridMoves(marks, rate)
  if (!moves) return 'Every mark stands on its attack already, or has none near it.'
  const would = cut.marksStay ? 'would move' : moves.count === 1 ? 'moves' : 'move'
  return `${moves.count} of ${marks.length} ${would}, by up to ${(moves.mostSeconds * 1000).toFixed(1)} ms, so that no slice begins after its strike.`
}
