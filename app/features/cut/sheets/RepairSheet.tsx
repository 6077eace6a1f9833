import { evenGains } from '@heliaster/core/cut'
import { fitWords } from '@heliaster/core/ship'
import type { Fit } from '@heliaster/core/ship'
import type { LiveMarker } from '@heliaster/core/cut'
import type { HitSettings, Repairs, Source } from '@heliaster/core/kit'
import { useRef, useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { CHANNEL_CHOICES } from '../../../kit-view/channel-choices'
import { FIT_CHOICES } from '../../../kit-view/fit-choices'
import { Chips } from '../../../ui/controls/Chips'
import { Sheet } from '../../../ui/layout/Sheet'
import { notify } from '../../../ui/layout/notices'
import { NumberField, Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { Toggle } from '../../../ui/controls/Toggle'
import type { CutHit } from '../bench/use-source-cut'
import { writeOut } from './write-out'

interface Props {
  readonly source: Source
  readonly chosen: CutHit | undefined
  /** What the list shows and nobody has passed. */
  readonly listed: readonly CutHit[]
  readonly onSlide: (changes: readonly { readonly marker: LiveMarker; readonly clip: HitSettings }[]) => void
  readonly onDone: () => void
  readonly onHear: (item: CutHit) => void
  readonly onClose: () => void
}

const MEASURES = [
  { value: 'loudness', text: 'Loudness' },
  { value: 'peak', text: 'Peak' },
] as const

/** Repairs of one hit or of all in the list. They are settings of the clips: the recording stays as it is. */
export function RepairSheet({ source, chosen, listed, onSlide, onDone, onHear, onClose }: Props) {
  const [scope, setScope] = useState<'one' | 'all'>(chosen ? 'one' : 'all')
  const [by, setBy] = useState<'loudness' | 'peak'>('loudness')
  const [share, setShare] = useState(0)
  const [targets, setTargets] = useState({ peak: -1, loudness: -14 })
  const items = scope === 'one' && chosen ? [chosen] : listed
  const settings = items.map(({ marker }) => marker.clip ?? {})
  const [isWriting, setIsWriting] = useState(false)
  const [fit, setFit] = useState<Fit>('together')
  const changed = useRef<readonly { readonly marker: LiveMarker; readonly clip: HitSettings }[]>([])
  const change = (make: (before: HitSettings, i: number) => HitSettings) => {
    changed.current = items.map(({ marker }, i) => ({ marker, clip: tidy(make(marker.clip ?? {}, i)) }))
    onSlide(changed.current)
  }
  const repair = (changes: Partial<Repairs>) => change((before) => ({ ...before, repairs: { ...before.repairs, ...changes } }))
  const set = (changes: HitSettings) => {
    change((before) => ({ ...before, ...changes }))
    hearThem()
  }
  /** Ends the change and sounds a hit as it is now, not as it was drawn last. */
  const hearThem = () => {
    onDone()
    const item = items.includes(chosen as CutHit) ? chosen : items[0]
    const now = changed.current.find(({ marker }) => marker.id === item?.marker.id)
    if (item) onHear({ ...item, marker: { ...item.marker, clip: now?.clip ?? item.marker.clip } })
  }
  const even = (next: number) => {
    setShare(next)
    const levels = items.map(levelOf)
    const gains = evenGains(levels, next / 100)
    change((before, i) => ({ ...before, gainDb: Math.min(60, Math.round(gains[i] * 100) / 100) }))
  }
  const write = async () => {
    setIsWriting(true)
    const written = await writeOut(source, items, fit)
    setIsWriting(false)
    notify(written)
  }
  const one = <K extends keyof HitSettings>(key: K) => same(settings.map((clip) => clip[key]))
  const fix = <K extends keyof Repairs>(key: K) => same(settings.map((clip) => clip.repairs?.[key]))
  const levelOf = ({ hit }: CutHit) => (by === 'loudness' ? hit?.loudnessDb : hit?.peakDb) ?? -Infinity
  const highest = Math.max(-Infinity, ...items.map((item) => levelOf(item) + (item.marker.clip?.gainDb ?? 0)))
  const peaks = items.map(({ hit, marker }) => 10 ** (((hit?.peakDb ?? -Infinity) + (marker.clip?.gainDb ?? 0)) / 20))
  const tooLoud = fitWords(
    peaks.filter((peak) => peak > 0),
    fit,
  )
  const setTarget = (db: number) => setTargets({ ...targets, [by]: Math.min(0, Math.max(-60, db)) })
  const bringThere = () => {
    const byDb = targets[by] - highest
    change((before) => ({ ...before, gainDb: Math.max(-120, Math.min(60, Math.round(((before.gainDb ?? 0) + byDb) * 100) / 100)) }))
    hearThem()
  }
  return (
    <Sheet title="Repair" isOpen onClose={onClose} actions={<Button label="Done" kind="main" onPress={onClose} />}>
      <Chips
        label="Changes touch"
        options={[
          ...(chosen ? [{ value: 'one' as const, text: 'This hit' }] : []),
          { value: 'all' as const, text: listed.length === 1 ? 'The one in the list' : `All ${listed.length} in the list` },
        ]}
        value={scope}
        onChoose={setScope}
      />
      {scope === 'one' ? (
        <Slider
          label="Level"
          value={one('gainDb') ?? 0}
          min={-60}
          max={60}
          step={0.1}
          unit="dB"
          neutral={0}
          onSlide={(gainDb) => change((before) => ({ ...before, gainDb }))}
          onDone={hearThem}
        />
      ) : (
        <>
          <Chips label="Even out by" options={MEASURES} value={by} onChoose={setBy} />
          <Slider
            label="Even out (0: as struck, 100: all alike)"
            value={share}
            min={0}
            max={100}
            step={1}
            unit="%"
            neutral={0}
            onSlide={even}
            onDone={onDone}
          />
          <Text look="small" tone="muted">
            Takes of one thing at several strengths are better left as they were struck: their level tells them apart.
          </Text>
        </>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: 12 }}>
        {scope === 'one' && <Chips label="Measured by" options={MEASURES} value={by} onChoose={setBy} />}
        <NumberField
          label={`${by === 'peak' ? 'Peak' : 'Loudness'} to reach`}
          text={String(targets[by])}
          unit={by === 'peak' ? 'dB' : 'LUFS'}
          onNumber={setTarget}
        />
        <Button
          label={scope === 'one' ? 'Bring it there' : 'Bring the loudest there, and all with it'}
          disabled={!Number.isFinite(highest)}
          onPress={bringThere}
        />
      </View>
      <Slider
        label="Low cut"
        value={fix('lowCutHz') ?? 10}
        min={10}
        max={1000}
        step={1}
        power={2.5}
        unit="Hz"
        neutral={10}
        format={(hz) => (hz <= 10 ? 'off' : String(hz))}
        onSlide={(hz) => repair({ lowCutHz: hz <= 10 ? undefined : hz })}
        onDone={hearThem}
      />
      <Slider
        label="Heights, above 5 kHz"
        value={fix('shelfDb') ?? 0}
        min={-24}
        max={24}
        step={0.5}
        unit="dB"
        neutral={0}
        onSlide={(shelfDb) => repair({ shelfDb: shelfDb === 0 ? undefined : shelfDb })}
        onDone={hearThem}
      />
      <Slider
        label="Fade in"
        value={Math.round((one('fadeInSeconds') ?? 0.0005) * 10000) / 10}
        min={0}
        max={200}
        step={0.1}
        power={3}
        unit="ms"
        onSlide={(ms) => change((before) => ({ ...before, fadeInSeconds: ms / 1000 }))}
        onDone={hearThem}
      />
      <Slider
        label="Fade out"
        value={Math.round((one('fadeOutSeconds') ?? 0.005) * 1000)}
        min={0}
        max={2000}
        step={1}
        power={2.5}
        unit="ms"
        onSlide={(ms) => change((before) => ({ ...before, fadeOutSeconds: ms / 1000 }))}
        onDone={hearThem}
      />
      <Toggle
        label="Remove DC"
        words="Puts a wave that stands off the middle back on it."
        value={fix('removeDc') ?? false}
        onChange={(removeDc) => {
          repair({ removeDc: removeDc || undefined })
          hearThem()
        }}
      />
      <Toggle label="Reverse" value={one('reverse') ?? false} onChange={(reverse) => set({ reverse })} />
      <Toggle label="Flip polarity" value={one('invert') ?? false} onChange={(invert) => set({ invert })} />
      {source.info.channels > 1 && (
        <Chips
          label="Takes of the file"
          options={CHANNEL_CHOICES}
          value={one('channel') ?? source.channel}
          onChoose={(channel) => set({ channel })}
        />
      )}
      {tooLoud && (
        <View style={{ gap: 6 }}>
          {items.length > 1 && <Chips label="Files that would clip" options={FIT_CHOICES} value={fit} onChoose={setFit} />}
          <Text look="small" tone="coral">
            {tooLoud} The kit plays them as they are set, through its limiter.
          </Text>
        </View>
      )}
      <Button
        label={items.length === 1 ? 'Write it out as a new file' : `Write these ${items.length} out as new files`}
        icon="file-plus-outline"
        disabled={items.length === 0 || isWriting}
        busy={isWriting}
        onPress={() => void write()}
      />
      <Button
        label={scope === 'one' ? 'Undo all repairs of this hit' : 'Undo all repairs of these'}
        disabled={settings.every((clip) => Object.keys(clip).length === 0)}
        onPress={() => {
          setShare(0)
          change(() => ({}))
          hearThem()
        }}
      />
    </Sheet>
  )
}

/** The value all share, or undefined. */
function same<T>(values: readonly (T | undefined)[]): T | undefined {
  return values.every((value) => value === values[0]) ? values[0] : undefined
}

/** Leaves out what is not set, so that a hit without repairs carries none. */
function tidy(clip: HitSettings): HitSettings {
  const repairs = clip.repairs && without(clip.repairs)
  return without({ ...clip, repairs: repairs && Object.keys(repairs).length > 0 ? repairs : undefined })
}

function without<T extends object>(given: T): T {
  return Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined)) as T
}
