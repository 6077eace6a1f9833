import { IN_TIME_GAP_SECONDS, playedInTime, USUAL_GAP_SECONDS } from '@heliaster/core/kit'
import type { CutSettings, Source } from '@heliaster/core/kit'
import type { ReactNode } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { NumberField, Slider } from '../../../ui/controls/Slider'
import { Toggle } from '../../../ui/controls/Toggle'
import { Text } from '../../../ui/layout/Text'
import type { FoundTempo } from './tempo-of-recording'

type OnCut = (changes: Partial<CutSettings>) => void

interface Slides {
  readonly onCut: OnCut
  /** Follows a drag, which `onSlid` ends. */
  readonly onSlide: OnCut
  readonly onSlid: () => void
}

type Grid<Kind> = Extract<NonNullable<CutSettings['grid']>, { readonly kind: Kind }>

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

const FROM = { file: 'Its file says', name: 'Its name says', strikes: 'Its strikes say' } as const

/** What is asked of a recording that is cut by its strikes. */
export function StrikesWay({ cut, onCut, onSlide, onSlid }: Slides & { readonly cut: CutSettings }) {
  return (
    <>
      <Slider
        label="Strikes are apart by at least"
        value={Math.round(cut.minGapSeconds * 1000)}
        min={5}
        max={2000}
        step={5}
        power={2.5}
        unit="ms"
        neutral={1000 * (cut.inTime ? IN_TIME_GAP_SECONDS : USUAL_GAP_SECONDS)}
        onSlide={(ms) => onSlide({ minGapSeconds: ms / 1000 })}
        onDone={onSlid}
      />
      <Toggle
        label="Slow attacks too"
        words="Finds what swells over some tens of ms, as a brush or a bow."
        value={cut.attack === 'slow'}
        onChange={(slow) => onCut({ attack: slow ? 'slow' : 'fast' })}
      />
      <Toggle
        label="Played in time"
        words="Where hands keep a pulse, what falls on it is sooner a strike, and what falls between sooner an echo."
        value={cut.inTime ?? false}
        onChange={(inTime) => onCut(playedInTime(cut, inTime))}
      />
      <Beginning cut={cut} onCut={onCut} />
    </>
  )
}

/** Of one that is cut in equal parts. */
export function PartsWay({ grid, onCut, onSlide, onSlid }: Slides & { readonly grid: Grid<'parts'> }) {
  const parts = (count: number) => ({ grid: { kind: 'parts' as const, count: whole(count, 1, 512) } })
  return (
    <>
      <Slider label="Parts" value={grid.count} min={1} max={512} step={1} power={3} unit="" onSlide={(count) => onSlide(parts(count))} onDone={onSlid} />
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Button label="Half as many" onPress={() => onCut(parts(grid.count / 2))} />
        <Button label="Twice as many" onPress={() => onCut(parts(grid.count * 2))} />
      </View>
    </>
  )
} // prettier-ignore

interface OnBeats {
  readonly grid: Grid<'beats'>
  readonly found: FoundTempo | undefined
  readonly onCut: OnCut
}

/** Of one that is cut on beats. */
export function BeatsWay({ grid, found, onCut }: OnBeats) {
  const set = (changes: Partial<Grid<'beats'>>) => onCut({ grid: { ...grid, ...changes } })
  const setTempo = (bpm: number) => set({ tempoBpm: Math.min(400, Math.max(20, bpm)) })
  return (
    <>
      <Text look="small" tone="muted">
        {found
          ? `${FROM[found.from]} ${found.bpm} beats a minute.`
          : 'No steady tempo is heard in it. Type it, and where the first beat falls.'}
      </Text>
      <View style={{ flexDirection: 'row', gap: 24 }}>
        <Labelled label="Tempo">
          <NumberField label="Tempo, beats a minute" text={String(grid.tempoBpm)} unit="BPM" onNumber={setTempo} />
        </Labelled>
        <Labelled label="First beat at">
          <NumberField
            label="First beat at, s"
            text={grid.firstSeconds.toFixed(3)}
            unit="s"
            onNumber={(seconds) => set({ firstSeconds: Math.max(0, seconds) })}
          />
        </Labelled>
      </View>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Button label="Half the tempo" onPress={() => setTempo(grid.tempoBpm / 2)} />
        <Button label="Twice" onPress={() => setTempo(grid.tempoBpm * 2)} />
      </View>
      <Chips label="One cut each" options={BEATS} value={String(grid.beats) as '1'} onChoose={(beats) => set({ beats: Number(beats) })} />
    </>
  )
}

/** Of one that is cut at its markers alone. */
export function MarksWay({ source, onCut }: { readonly source: Source; readonly onCut: OnCut }) {
  return (
    <>
      <Text look="small" tone="muted">
        {markerWords(source)}
      </Text>
      <Beginning cut={source.cut} onCut={onCut} />
    </>
  )
}

function Beginning({ cut: { snap = 'attack' }, onCut }: { readonly cut: CutSettings; readonly onCut: OnCut }) {
  return <Chips label="A clip begins at" options={SNAPS} value={snap} onChoose={(next) => onCut({ snap: next })} />
}

function markerWords({ markers }: Source): string {
  const there = markers.filter((marker) => !marker.removed)
  const fromFile = there.filter((marker) => marker.origin === 'file').length
  return `Nothing is looked for: ${fromFile === 1 ? '1 marker' : `${fromFile} markers`} came with the file, ${there.length - fromFile} were set or kept by hand.`
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
