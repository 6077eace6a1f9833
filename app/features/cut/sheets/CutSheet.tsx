import { attacksOf, findHits, gridMarks, gridMoves, tempoInName, tempoOf, toldTempo } from '@heliaster/core/cut'
import { cutStartOf } from '@heliaster/core/kit'
import type { CutSettings, Source } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Sheet } from '../../../ui/layout/Sheet'
import { NumberField, Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { Toggle } from '../../../ui/controls/Toggle'
import { KeepStart, StartChips } from '../../starts'
import { changeLooks, cutLooks } from '../bench/looks'
import type { Analysis } from '../bench/use-source-cut'

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
const FROM = { file: 'Its file says', name: 'Its name says', strikes: 'Its strikes say' } as const
const TIMES = [
  { value: 'seconds', text: 'Seconds' },
  { value: 'frames', text: 'Samples' },
  { value: 'beats', text: 'Beats' },
] as const
const SNAPS = [
  { value: 'attack', text: 'The attack' },
  { value: 'up', text: 'Zero, rising' },
  { value: 'down', text: 'Zero, falling' },
  { value: 'none', text: 'The marker' },
] as const
const BEATS = [
  { value: '4', text: 'Bar' },
  { value: '2', text: 'Half' },
  { value: '1', text: 'Beat' },
  { value: '0.5', text: '1/8' },
  { value: '0.25', text: '1/16' },
] as const

/** How this recording is cut. Markers that were pinned or made by hand stay whatever is chosen here. */
export function CutSheet({ source, analysis, tempoBpm, onCut, onSlide, onSlid, onClose }: Props) {
  const { grid, snap = 'attack', attack = 'fast', minGapSeconds } = source.cut
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
      {grid?.kind === 'marks' && (
        <>
          <Text look="small" tone="muted">
            {markerWords(source)}
          </Text>
          <Chips label="A clip begins at" options={SNAPS} value={snap} onChoose={(next) => onCut({ snap: next })} />
        </>
      )}
      {!grid && (
        <>
          <Slider
            label="Strikes are apart by at least"
            value={Math.round(minGapSeconds * 1000)}
            min={5}
            max={2000}
            step={5}
            power={2.5}
            unit="ms"
            neutral={60}
            onSlide={(ms) => onSlide({ minGapSeconds: ms / 1000 })}
            onDone={onSlid}
          />
          <Toggle
            label="Slow attacks too"
            words="Finds what swells over some tens of ms, as a brush or a bow."
            value={attack === 'slow'}
            onChange={(slow) => onCut({ attack: slow ? 'slow' : 'fast' })}
          />
          <Chips label="A clip begins at" options={SNAPS} value={snap} onChoose={(next) => onCut({ snap: next })} />
        </>
      )}
      {grid?.kind === 'parts' && (
        <>
          <Slider
            label="Parts"
            value={grid.count}
            min={1}
            max={512}
            step={1}
            power={3}
            unit=""
            onSlide={(count) => onSlide({ grid: { kind: 'parts', count: whole(count, 1, 512) } })}
            onDone={onSlid}
          />
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <Button label="Half as many" onPress={() => onCut({ grid: { kind: 'parts', count: whole(grid.count / 2, 1, 512) } })} />
            <Button label="Twice as many" onPress={() => onCut({ grid: { kind: 'parts', count: whole(grid.count * 2, 1, 512) } })} />
          </View>
        </>
      )}
      {grid?.kind === 'beats' && (
        <>
          <Text look="small" tone="muted">
            {found
              ? `${FROM[found.from]} ${found.bpm} beats a minute.`
              : 'No steady tempo is heard in it. Type it, and where the first beat falls.'}
          </Text>
          <View style={{ flexDirection: 'row', gap: 24 }}>
            <Labelled label="Tempo">
              <NumberField
                label="Tempo, beats a minute"
                text={String(grid.tempoBpm)}
                unit="BPM"
                onNumber={(bpm) => onCut({ grid: { ...grid, tempoBpm: Math.min(400, Math.max(20, bpm)) } })}
              />
            </Labelled>
            <Labelled label="First beat at">
              <NumberField
                label="First beat at, s"
                text={grid.firstSeconds.toFixed(3)}
                unit="s"
                onNumber={(seconds) => onCut({ grid: { ...grid, firstSeconds: Math.max(0, seconds) } })}
              />
            </Labelled>
          </View>
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <Button label="Half the tempo" onPress={() => onCut({ grid: { ...grid, tempoBpm: Math.max(20, grid.tempoBpm / 2) } })} />
            <Button label="Twice" onPress={() => onCut({ grid: { ...grid, tempoBpm: Math.min(400, grid.tempoBpm * 2) } })} />
          </View>
          <Chips
            label="One cut each"
            options={BEATS}
            value={String(grid.beats) as '1'}
            onChoose={(beats) => onCut({ grid: { ...grid, beats: Number(beats) } })}
          />
        </>
      )}
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
  return { attack: undefined, snap: undefined, marksStay: undefined, passedEnd: undefined, ...cut, grid }
}

function markerWords({ markers }: Source): string {
  const there = markers.filter((marker) => !marker.removed)
  const fromFile = there.filter((marker) => marker.origin === 'file').length
  return `Nothing is looked for: ${fromFile === 1 ? '1 marker' : `${fromFile} markers`} came with the file, ${there.length - fromFile} were set or kept by hand.`
}

/** How many marks moved, and how far, so that nobody has to guess where a slice begins. */
function moveWords({ cut }: Source, { mono, audio, curve }: Analysis): string {
  if (!cut.grid) return ''
  const rate = audio.sampleRateHz
  const marks = gridMarks(cut.grid, mono.length, rate, attacksOf(mono, rate, curve))
  const moves = gridMoves(marks, rate)
  if (!moves) return 'Every mark stands on its attack already, or has none near it.'
  const would = cut.marksStay ? 'would move' : moves.count === 1 ? 'moves' : 'move'
  return `${moves.count} of ${marks.length} ${would}, by up to ${(moves.mostSeconds * 1000).toFixed(1)} ms, so that no slice begins after its strike.`
}

function Labelled({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    <View>
      <Text look="label" tone="muted">
        {label}
      </Text>
      {children}
    </View>
  )
}

function whole(value: number, low: number, high: number): number {
  return Math.min(high, Math.max(low, Math.round(value)))
}

function tempoOfRecording(
  source: Source,
  analysis: Analysis,
): { bpm: number; firstSeconds: number; from: 'file' | 'name' | 'strikes' } | undefined {
  const rate = analysis.audio.sampleRateHz
  const strikes = findHits(analysis.mono, rate, analysis.strikes)
  const heard = tempoOf(strikes.map(({ frame, strength }) => ({ seconds: frame / rate, strength })))
  const told = toldTempo(source.told ?? {}, source.info.frames / source.info.sampleRateHz)
  if (told) return { bpm: told, firstSeconds: strikes[0] ? strikes[0].frame / rate : 0, from: 'file' }
  const named = tempoInName(source.name) ?? tempoInName(source.info.name)
  if (named) return { bpm: named, firstSeconds: strikes[0] ? strikes[0].frame / rate : 0, from: 'name' }
  return heard && { bpm: heard.bpm, firstSeconds: heard.firstSeconds, from: 'strikes' }
}
