import { padSettings } from '@heliaster/core/kit'
import type { BandId, Clip, Kit, KitEdit, Pad, RayId, TurnId } from '@heliaster/core/kit'
import { swapTurns } from '@heliaster/core/place'
import type { TakeTarget } from '@heliaster/core/place'
import { useMemo, useState } from 'react'
import { Pressable, ScrollView, View } from 'react-native'

import { hearClip } from '../../../audio/sound'
import { Chips } from '../../../ui/Chips'
import { MiniWave } from '../../../ui/MiniWave'
import { notify } from '../../../ui/notices'
import { NumberField } from '../../../ui/Slider'
import { Text } from '../../../ui/Text'
import { usePalette } from '../../../ui/theme'
import { editKit, useSession } from '../../shell'
import { padGesture } from '../../shell/use-kit'
import { BandPanel } from './BandPanel'
import { CellPanel } from './CellPanel'
import { useCellDrag } from './use-cell-drag'
import { VelocityBar } from './VelocityBar'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly onRecord: (target: TakeTarget) => void
}

const LARGEST_CELL = 46
const SMALLEST_CELL = 38
const EDGE_WIDTH = 36

/**
 * The cells of a pad, soft at the bottom, turns across. A tap hears one alone, a drag swaps two; the one that sounded
 * last is lit. Of several rays the chosen one is shown.
 */
export function CellGrid({ kit, pad, onRecord }: Props) {
  const palette = usePalette()
  const [width, setWidth] = useState(0)
  const [chosen, setChosen] = useState<TurnId>()
  const [bandId, setBandId] = useState<BandId>()
  const [shownRay, setShownRay] = useState<RayId>()
  const [over, setOver] = useState<TurnId>()
  const lit = useSession((state) => state.lit[pad.id])
  const gesture = useMemo(() => padGesture(kit.id, pad.id), [kit.id, pad.id])
  const swap = (one: TurnId, other: TurnId) =>
    editKit(kit.id, [{ type: 'setPadFilling', padId: pad.id, bands: swapTurns(pad.bands, one, other) }], pad.id)
  const dragRef = useCellDrag({ onOver: setOver, onDrop: swap })
  if (pad.bands.length === 0)
    return (
      <View style={{ borderWidth: 1, borderStyle: 'dashed', borderColor: palette.muted, borderRadius: 8, padding: 20 }}>
        <Text look="small" tone="muted">
          Nothing is on this pad, so it is silent. Choose clips, or send hits here from Cut.
        </Text>
      </View>
    )
  const most = Math.max(1, ...pad.bands.map((band) => band.turns.length))
  const cell = Math.max(SMALLEST_CELL, Math.min(LARGEST_CELL, Math.floor((width - EDGE_WIDTH - 32) / most) - 4))
  const shared = pad.rays.filter((ray) => ray.source.kind === 'clips' && !ray.source.bands)
  const ray = shared.find(({ id }) => id === shownRay) ?? shared[0]
  const band = pad.bands.find(({ id }) => id === bandId)
  /** Edges that were set by hand are no longer spread by a rule. */
  const asSet: KitEdit = { type: 'setPadFilling', padId: pad.id, spread: 'own' }
  const edge = (id: BandId, fromVelocity: number): KitEdit => ({ type: 'setBand', padId: pad.id, bandId: id, fields: { fromVelocity } })
  return (
    <View style={{ gap: 8 }}>
      {shared.length > 1 && (
        <Chips
          label="Cells of"
          hideLabel
          options={shared.map(({ id, name }) => ({ value: id, text: name }))}
          value={ray?.id}
          onChoose={setShownRay}
        />
      )}
      <View ref={dragRef}>
        <ScrollView
          horizontal
          onLayout={(event) => setWidth(event.nativeEvent.layout.width)}
          contentContainerStyle={{ flexDirection: 'column-reverse', gap: 4 }}
        >
          {pad.bands.map((own, index) => (
            <View key={own.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
              <NumberField
                label={`Band ${index + 1} begins at velocity`}
                text={String(own.fromVelocity)}
                unit="↑"
                width={EDGE_WIDTH}
                onNumber={(velocity) => {
                  const low = (pad.bands[index - 1]?.fromVelocity ?? 0) + 1
                  const high = (pad.bands[index + 1]?.fromVelocity ?? 128) - 1
                  if (index === 0) notify('The softest band always begins at velocity 1.')
                  else editKit(kit.id, [edge(own.id, Math.min(high, Math.max(low, Math.round(velocity)))), asSet], pad.id)
                }}
              />
              {own.turns.length === 0 && (
                <Text look="small" tone="muted">
                  empty: strikes here are silent
                </Text>
              )}
              {own.turns.map((turn, turnIndex) => {
                const clip = ray && turn.clips[ray.id]
                const isLit = lit?.band === index && lit.turn === turnIndex
                const isMarked = turn.id === chosen || turn.id === over
                return (
                  <Pressable
                    key={turn.id}
                    role="button"
                    aria-label={`Hear band ${index + 1}, turn ${turnIndex + 1}${clip ? '' : ', no clip'}`}
                    aria-pressed={turn.id === chosen}
                    onPress={() => {
                      setChosen(turn.id)
                      setBandId(own.id)
                      if (clip && clip !== 'intendedSilence') hearClip(clip).catch((error: Error) => notify(error.message))
                    }}
                    {...{ dataSet: { turn: turn.id } }}
                    style={{
                      width: cell,
                      height: cell,
                      borderRadius: 6,
                      borderWidth: isLit || turn.id === over ? 2 : 1,
                      borderStyle: clip ? 'solid' : 'dashed',
                      borderColor: isLit ? palette.coral : isMarked ? palette.kelp : palette.line,
                      backgroundColor: isLit ? palette.coralWash : clip ? palette.surface : 'transparent',
                      alignItems: 'center',
                      justifyContent: 'center',
                      ...({ userSelect: 'none' } as object), // a drag selects no text
                    }}
                  >
                    <CellFace clip={clip} turn={turnIndex} cell={cell} />
                  </Pressable>
                )
              })}
              <Pressable
                role="button"
                aria-label={`Record onto band ${index + 1}`}
                onPress={() => onRecord({ kind: 'band', bandId: own.id })}
                style={{ width: cell, height: cell, alignItems: 'center', justifyContent: 'center' }}
              >
                <View style={{ width: 14, height: 14, borderRadius: 7, borderWidth: 2, borderColor: palette.coral }} />
              </Pressable>
            </View>
          ))}
        </ScrollView>
      </View>
      {pad.bands.length > 1 && (
        <VelocityBar
          bands={pad.bands}
          chosen={bandId}
          onChoose={(id) => {
            setBandId(id)
            setChosen(undefined)
          }}
          onSlide={(id, fromVelocity) => gesture.set([edge(id, fromVelocity), asSet])}
          onDone={gesture.end}
        />
      )}
      {chosen && ray && (
        <CellPanel
          key={chosen}
          kit={kit}
          pad={pad}
          ray={ray}
          turnId={chosen}
          pick={padSettings(kit, pad).pick}
          gesture={gesture}
          onSwap={swap}
          onRecord={onRecord}
        />
      )}
      {band && !chosen && pad.bands.length > 1 && <BandPanel kit={kit} pad={pad} band={band} gesture={gesture} />}
    </View>
  )
}

function CellFace({ clip, turn, cell }: { clip: Clip | 'intendedSilence' | undefined; turn: number; cell: number }) {
  if (clip && clip !== 'intendedSilence' && isWhole(clip)) return <MiniWave audio={clip.audio} width={cell - 10} height={cell - 20} />
  return (
    <Text look="figures" tone={clip ? 'ink' : 'muted'}>
      {clip === 'intendedSilence' ? '–' : clip ? turn + 1 : '?'}
    </Text>
  )
}

/** The small picture is of a whole file, so it stands only for clips that are. */
function isWhole(clip: Clip): boolean {
  return clip.startFrame === 0 && clip.fromHit === undefined && clip.fadeOutSeconds === 0
}
