import { familyWords } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { coreWork } from '../../../audio/workers/workers'
import { Button } from '../../../ui/controls/Button'
import { NameField } from '../../../ui/controls/NameField'
import { nearestNote, noteName } from '../../../kit-view/note-name'
import { Sheet } from '../../../ui/layout/Sheet'
import { NumberField } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { Toggle } from '../../../ui/controls/Toggle'
import { useIsWide } from '../../../ui/layout/use-is-wide'
import { showKin } from '../../gather'
import { useKitId } from '../../../kit-view'
import { WARNING_ADVICE, WARNING_WORDS } from '../hits/hit-clip'
import { changeLooks, cutLooks } from '../bench/looks'
import type { CutActions, CutHit } from '../bench/use-source-cut'

interface Props {
  readonly source: Source
  readonly item: CutHit
  readonly actions: CutActions
  readonly onClose: () => void
}

/** One hit in full: its name, where it begins and ends, and how it is judged and why. */
export function HitSheet({ source, item, actions, onClose }: Props) {
  const { marker, hit } = item
  const kitId = useKitId()
  const isWide = useIsWide() // where the list stands beside the recording
  const openGather = () => !isWide && router.navigate(`/kit/${kitId}/gather`)
  const endsStay = useStore(cutLooks, (state) => state.endsStay)
  const rate = source.info.sampleRateHz
  const endFrame = marker.endFrame ?? hit?.endFrame ?? marker.frame
  const ms = (frames: number) => ((frames / rate) * 1000).toFixed(2)
  const frames = (ms: number) => Math.round((ms * rate) / 1000)
  return (
    <Sheet title="This hit" isOpen onClose={onClose}>
      <NameField
        label="Name"
        value={marker.name ?? ''}
        autoFocus
        placeholder="Give it a name"
        onName={(name) => actions.name(marker, name)}
      />
      <Row label="Begins at">
        <NumberField
          label="Begins at, ms"
          text={ms(marker.frame)}
          unit="ms"
          width={96}
          onNumber={(at) => actions.nudge(marker, frames(at) - marker.frame)}
        />
      </Row>
      <Row label="Ends at">
        <NumberField
          label="Ends at, ms"
          text={ms(endFrame)}
          unit="ms"
          width={96}
          onNumber={(at) => actions.setEnd(marker, Math.min(source.info.frames, frames(at)))}
        />
      </Row>
      <Row label="Length">
        <NumberField
          label="Length, ms"
          text={ms(endFrame - marker.frame)}
          unit="ms"
          width={96}
          onNumber={(long) => actions.setEnd(marker, Math.min(source.info.frames, marker.frame + frames(long)))}
        />
      </Row>
      <View style={{ flexDirection: 'row', gap: 8, flexWrap: 'wrap' }}>
        <Button label="1 ms earlier" onPress={() => actions.nudge(marker, -Math.round(rate / 1000))} />
        <Button label="1 ms later" onPress={() => actions.nudge(marker, Math.round(rate / 1000))} />
        {hit && (
          <Button label="Sounds like this" icon="approximately-equal" onPress={() => void likeThis(source, item, onClose, openGather)} />
        )}
        {marker.endFrame !== undefined && <Button label="Find its end again" onPress={() => actions.setEnd(marker)} />}
      </View>
      {marker.endFrame !== undefined && (
        <Toggle
          label="The end stays when the begin is moved"
          words="Otherwise the whole window moves and keeps its length."
          value={endsStay}
          onChange={(next) => changeLooks({ endsStay: next })}
        />
      )}
      {hit && hit.secondFrames.length > 0 && (
        <View style={{ gap: 6, alignItems: 'flex-start' }}>
          <Text look="small" tone="muted">
            {secondWords(hit.secondFrames.map((frame) => Number(ms(frame - hit.onsetFrame))))}
          </Text>
          <Button
            label={hit.secondFrames.length === 1 ? 'Make it a hit of its own' : `Make them ${hit.secondFrames.length} hits of their own`}
            onPress={() => {
              actions.cutOut(hit.secondFrames)
              onClose()
            }}
          />
        </View>
      )}
      {hit && (
        <View style={{ gap: 2 }}>
          <Fact label="Peak" value={`${hit.peakDb.toFixed(1)} dB`} />
          <Fact label="Loudness" value={`${hit.loudnessDb.toFixed(1)} LUFS in its loudest 100 ms`} />
          <Fact label="Attack" value={`${(hit.attackSeconds * 1000).toFixed(1)} ms`} />
          <Fact label="Silence at the front" value={`${ms(Math.max(0, hit.onsetFrame - hit.startFrame))} ms`} />
          <Fact label="Pitch" value={hit.pitch ? pitchWords(hit.pitch) : 'unpitched'} />
          <Fact label="Spectral centre" value={`${Math.round(hit.centreHz)} Hz`} />
          <Fact label="Family" value={`${familyWords(hit.family)}: ${hit.reason}`} />
          {hit.warnings.map((warning) => (
            <Text key={warning} look="small" tone="coral" style={{ paddingTop: 4 }}>
              {`${WARNING_WORDS[warning][0].toUpperCase()}${WARNING_WORDS[warning].slice(1)}. ${WARNING_ADVICE[warning]}`}
            </Text>
          ))}
        </View>
      )}
    </Sheet>
  )
}

/** The list of sounds, by likeness to this hit. */
async function likeThis(source: Source, { marker, hit }: CutHit, onClose: () => void, openGather: () => void): Promise<void> {
  if (!hit) return
  const sounding = await coreWork().sounding(source.audio, { onsetFrame: marker.frame, endFrame: hit.endFrame })
  if (!sounding) return
  showKin({ name: marker.name ?? `the hit at ${(marker.frame / source.info.sampleRateHz).toFixed(2)} s`, sounding })
  onClose()
  openGather()
}

const MOST_TIMES = 4

function secondWords(afterMs: readonly number[]): string {
  const times = afterMs.slice(0, MOST_TIMES).map((ms) => `${Math.round(ms)} ms`)
  const more = afterMs.length > MOST_TIMES ? ' and more' : ''
  const what = afterMs.length === 1 ? 'Something strikes again inside it' : `Something strikes ${afterMs.length} times more inside it`
  return `${what}, ${times.join(', ')}${more} after its begin. It belongs to this hit and ends nothing.`
}

function pitchWords({ hz, confidence }: { readonly hz: number; readonly confidence: number }): string {
  const { note, cents } = nearestNote(hz)
  return `${hz.toFixed(1)} Hz, ${noteName(note)} ${cents >= 0 ? '+' : ''}${Math.round(cents)} cents, ${Math.round(confidence * 100)} % sure`
}

function Row({ label, children }: { readonly label: string; readonly children: React.ReactNode }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
      <Text look="label" tone="muted">
        {label}
      </Text>
      {children}
    </View>
  )
}

function Fact({ label, value }: { readonly label: string; readonly value: string }) {
  return (
    <View style={{ flexDirection: 'row', gap: 12, paddingVertical: 3 }}>
      <Text look="label" tone="muted" style={{ width: 128 }}>
        {label}
      </Text>
      <Text look="figures" style={{ flex: 1 }}>
        {value}
      </Text>
    </View>
  )
}
