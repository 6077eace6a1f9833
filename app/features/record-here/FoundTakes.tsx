import type { Kit, KitEdit, Pad, Source } from '@heliaster/core/kit'
import { putTakes, proposeLevel } from '@heliaster/core/place'
import type { PutMode, TakeTarget } from '@heliaster/core/place'
import { useState } from 'react'
import { View } from 'react-native'

import { hearClip } from '../../audio/engine/sound'
import { makeId } from '../../documents/make-id'
import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { notify } from '../../ui/layout/notices'
import { Sheet } from '../../ui/layout/Sheet'
import { Text } from '../../ui/layout/Text'
import { editKit } from '../../kit-view'
import { clipOfHit, HitRow, useAnalysis, useCutActions, useHits } from '../cut'
import type { Analysis, CutHit } from '../cut'
import { groupsOf } from './groups'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: TakeTarget
  readonly source: Source
  /** Seconds at which the guided pass went from soft to middle and from middle to hard. */
  readonly borders: readonly number[]
  readonly onAgain: () => void
  readonly onClose: () => void
}

/** What was found in the recording: every candidate is heard, kept or passed; the kept go onto the pad. */
export function FoundTakes(props: Props) {
  const state = useAnalysis(props.source)
  if (state.type === 'ready') return <Found {...props} analysis={state.analysis} />
  return (
    <Sheet title="Takes" isOpen onClose={props.onClose}>
      <Text role={state.type === 'failed' ? 'alert' : 'status'}>{state.type === 'failed' ? state.message : 'Looking for strikes'}</Text>
    </Sheet>
  )
}

const MODES = [
  { value: 'add', text: 'Add to what is there' },
  { value: 'replace', text: 'Replace it' },
] as const
const PASSES = ['Soft', 'Middle', 'Hard']

function Found({ kit, pad, target, source, borders, onAgain, onClose, analysis }: Props & { readonly analysis: Analysis }) {
  const hits = useHits(source, analysis)
  const actions = useCutActions(source)
  const [chosenId, setChosenId] = useState<string>()
  const [mode, setMode] = useState<PutMode>('add')
  const kept = keptOf(hits, target, chosenId)
  const groups = groupsOf(kept, borders, source.info.sampleRateHz)
  const isOccupied = target.kind === 'band' || target.kind === 'ray' || (target.kind === 'pad' && pad.bands.length === 1)
  const hear = (item: CutHit) => {
    setChosenId(item.marker.id)
    if (item.hit) hearClip(clipOfHit(source, item.marker, item.hit)).catch((error: Error) => notify(error.message))
  }
  const put = () => {
    const clips = groups.map((group) => group.flatMap(({ marker, hit }) => (hit ? [clipOfHit(source, marker, hit)] : [])))
    const filling = putTakes(makeId, pad, target, clips, mode)
    const audio: KitEdit = { type: 'putAudio', audio: source.audio, info: source.info }
    const level = target.kind === 'pad' && filling.bands ? proposeLevel(pad, filling.bands.length) : []
    editKit(kit.id, [audio, { type: 'setPadFilling', padId: pad.id, ...filling }, ...level], pad.id)
    onClose()
  }
  const counts = borders.length > 0 ? groups.map((group, i) => `${PASSES[i].toLowerCase()} ${group.length}`).join(', ') : ''
  return (
    <Sheet
      title={`${hits.length} ${hits.length === 1 ? 'strike' : 'strikes'} found`}
      isOpen
      onClose={onClose}
      actions={
        <>
          {isOccupied && borders.length === 0 && <Chips label="What is there" hideLabel options={MODES} value={mode} onChoose={setMode} />}
          <Button label={putLabel(target, kept.length, counts)} kind="main" disabled={kept.length === 0} onPress={put} />
          <Button label="Record again" onPress={onAgain} />
        </>
      }
    >
      {hits.length === 0 && (
        <Text tone="muted">No strike stands out. The recording is on the list in Gather; record again nearer or louder.</Text>
      )}
      <View>
        {hits.map((item, index) => (
          <View key={item.marker.id}>
            {borders.length > 0 &&
              passOf(item, borders, source.info.sampleRateHz) !== passOf(hits[index - 1], borders, source.info.sampleRateHz) && (
                <Text look="label" tone="muted" style={{ paddingTop: 8 }}>
                  {PASSES[passOf(item, borders, source.info.sampleRateHz)]}
                </Text>
              )}
            <HitRow
              item={target.kind === 'turn' ? { ...item, marker: { ...item.marker, verdict: kept.includes(item) ? 'keep' : 'pass' } } : item}
              sampleRateHz={source.info.sampleRateHz}
              chosen={item.marker.id === chosenId}
              onChoose={hear}
              onJudge={({ marker }, verdict) => {
                if (target.kind !== 'turn') actions.judge(item.marker, verdict)
                else if (verdict === 'keep') setChosenId(marker.id) // one cell takes one
              }}
            />
          </View>
        ))}
      </View>
    </Sheet>
  )
}

/** The takes that go: all that are not passed, or for a single cell the chosen one, else the one that stands out most. */
function keptOf(hits: readonly CutHit[], target: TakeTarget, chosenId: string | undefined): CutHit[] {
  const ready = hits.filter(({ marker, hit }) => hit && marker.verdict !== 'pass')
  if (target.kind !== 'turn') return ready
  const chosen = hits.find(({ marker, hit }) => hit && marker.id === chosenId)
  const best = [...ready].sort((a, b) => (b.marker.strength ?? 0) - (a.marker.strength ?? 0))[0]
  return chosen ? [chosen] : best ? [best] : []
}

function passOf(item: CutHit | undefined, borders: readonly number[], sampleRateHz: number): number {
  return item ? borders.filter((border) => item.marker.frame / sampleRateHz >= border).length : -1
}

function putLabel(target: TakeTarget, count: number, counts: string): string {
  if (target.kind === 'turn') return 'Put it into the cell'
  if (counts) return `Put them on as bands: ${counts}`
  return count === 1 ? 'Put 1 turn on' : `Put ${count} turns on`
}
