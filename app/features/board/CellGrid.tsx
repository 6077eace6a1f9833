import type { BandId, Clip, Kit, Pad, TurnId } from '@heliaster/core/kit'
import type { TakeTarget } from '@heliaster/core/place'
import { useState } from 'react'
import { Pressable, ScrollView, View } from 'react-native'

import { hearClip } from '../../audio/sound'
import { MiniWave } from '../../ui/MiniWave'
import { notify } from '../../ui/notices'
import { NumberField } from '../../ui/Slider'
import { Text } from '../../ui/Text'
import { usePalette } from '../../ui/theme'
import { useSession } from '../shell'
import { CellPanel } from './CellPanel'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly onBandEdge: (bandId: BandId, fromVelocity: number) => void
  readonly onRecord: (target: TakeTarget) => void
}

const LARGEST_CELL = 46
const SMALLEST_CELL = 38
const EDGE_WIDTH = 36

/** The cells of a pad, soft at the bottom, turns across. A tap hears one alone; the one that sounded last is lit. */
export function CellGrid({ kit, pad, onBandEdge, onRecord }: Props) {
  const palette = usePalette()
  const [width, setWidth] = useState(0)
  const most = Math.max(1, ...pad.bands.map((band) => band.turns.length))
  const cell = Math.max(SMALLEST_CELL, Math.min(LARGEST_CELL, Math.floor((width - EDGE_WIDTH - 32) / most) - 4))
  const [chosen, setChosen] = useState<TurnId>()
  const lit = useSession((state) => state.lit[pad.id])
  if (pad.bands.length === 0)
    return (
      <View style={{ borderWidth: 1, borderStyle: 'dashed', borderColor: palette.muted, borderRadius: 8, padding: 20 }}>
        <Text look="small" tone="muted">
          Nothing is on this pad, so it is silent. Choose clips, or send hits here from Cut.
        </Text>
      </View>
    )
  return (
    <View style={{ gap: 8 }}>
      <ScrollView
        horizontal
        onLayout={(event) => setWidth(event.nativeEvent.layout.width)}
        contentContainerStyle={{ flexDirection: 'column-reverse', gap: 4 }}
      >
        {pad.bands.map((band, index) => (
          <View key={band.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
            <NumberField
              label={`Band ${index + 1} begins at velocity`}
              text={String(band.fromVelocity)}
              unit="↑"
              width={EDGE_WIDTH}
              onNumber={(velocity) => {
                const low = (pad.bands[index - 1]?.fromVelocity ?? 0) + 1
                const high = (pad.bands[index + 1]?.fromVelocity ?? 128) - 1
                if (index === 0) notify('The softest band always begins at velocity 1.')
                else onBandEdge(band.id, Math.min(high, Math.max(low, Math.round(velocity))))
              }}
            />
            {band.turns.length === 0 && (
              <Text look="small" tone="muted">
                empty: strikes here are silent
              </Text>
            )}
            {band.turns.map((turn, turnIndex) => {
              const clips = Object.values(turn.clips).filter((clip): clip is Clip => clip !== 'intendedSilence')
              const isLit = lit?.band === index && lit.turn === turnIndex
              return (
                <Pressable
                  key={turn.id}
                  role="button"
                  aria-label={`Hear band ${index + 1}, turn ${turnIndex + 1}`}
                  aria-pressed={turn.id === chosen}
                  onPress={() => {
                    setChosen(turn.id)
                    if (clips[0]) hearClip(clips[0]).catch((error: Error) => notify(error.message))
                  }}
                  style={{
                    width: cell,
                    height: cell,
                    borderRadius: 6,
                    borderWidth: isLit ? 2 : 1,
                    borderColor: isLit ? palette.coral : turn.id === chosen ? palette.kelp : palette.line,
                    backgroundColor: isLit ? palette.coralWash : palette.surface,
                    alignItems: 'center',
                    justifyContent: 'center',
                  }}
                >
                  {clips[0] && isWhole(clips[0]) ? (
                    <MiniWave audio={clips[0].audio} width={cell - 10} height={cell - 20} />
                  ) : (
                    <Text look="figures">{turnIndex + 1}</Text>
                  )}
                </Pressable>
              )
            })}
            <Pressable
              role="button"
              aria-label={`Record onto band ${index + 1}`}
              onPress={() => onRecord({ kind: 'band', bandId: band.id })}
              style={{ width: cell, height: cell, alignItems: 'center', justifyContent: 'center' }}
            >
              <View style={{ width: 14, height: 14, borderRadius: 7, borderWidth: 2, borderColor: palette.coral }} />
            </Pressable>
          </View>
        ))}
      </ScrollView>
      {chosen && <CellPanel kit={kit} pad={pad} turnId={chosen} onRecord={onRecord} />}
    </View>
  )
}

/** The small picture is of a whole file, so it stands only for clips that are. */
function isWhole(clip: Clip): boolean {
  return clip.startFrame === 0 && clip.fromHit === undefined && clip.fadeOutSeconds === 0
}
