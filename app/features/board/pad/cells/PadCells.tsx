import type { Kit, KitEdit, Pad, RayId, Source, TurnId } from '@heliaster/core/kit'
import { addBand, cellsOf, setCells } from '@heliaster/core/place'
import type { TakeTarget } from '@heliaster/core/place'
import { router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'

import { makeId } from '../../../../documents/make-id'
import { AskButton } from '../../../../ui/controls/AskButton'
import { Button } from '../../../../ui/controls/Button'
import { Chips } from '../../../../ui/controls/Chips'
import { notify } from '../../../../ui/layout/notices'
import { Text } from '../../../../ui/layout/Text'
import { PlaceSheet } from '../../../place'
import { RecordHereSheet } from '../../../record-here'
import { editKit } from '../../../../kit-view'
import { CellGrid } from './CellGrid'
import { CellFindings } from './CellFindings'
import { DropOnCells } from './DropOnCells'
import { FillSheet } from './FillSheet'
import { Followers } from '../ties/Followers'
import { bandsByLoudness } from './loudness-edges'
import { leftOutBySpread, spreadEdits } from '../../edits/pad-edits'
import { refillEdits } from './refill'

/** What fills a pad: the cells of its rays, and the ways to fill and spread them. */
export function PadCells({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const [rayId, setRayId] = useState<RayId>()
  const [filling, setFilling] = useState<{ readonly turnId?: TurnId }>()
  const [placing, setPlacing] = useState<readonly Source[]>()
  const [shown, setShown] = useState<{ readonly file: Source; readonly turnId: TurnId }>()
  const [recording, setRecording] = useState<TakeTarget>()
  const cells = cellsOf(pad, rayId)
  if (!cells) return <Text tone="muted">This pad has no ray with clips.</Text>
  const withClips = pad.rays.filter((ray) => ray.source.kind === 'clips')
  const { bands, ray, isOwn } = cells
  const turns = bands.reduce((sum, band) => sum + band.turns.length, 0)
  const edit = (edits: KitEdit[]) => editKit(kit.id, edits, pad.id)
  const spread = (how: 'bands' | 'turns' | 'even') => edit(spreadEdits(pad, cells, how))
  const grow = () => {
    const next = addBand(makeId, bands)
    if (next.length === bands.length) return notify('The loudest band has no velocity to give away. Move its edge down first.')
    void refillEdits(pad, cells, next).then(edit)
  }
  const setByLoudness = async () => {
    try {
      const next = await bandsByLoudness(cells)
      if (next) edit([setCells(pad, cells, next, 'loudness')])
      else notify('The bands do not rise in loudness, so the edges stay. Hear each band: one may be in the wrong place.')
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error))
    }
  }
  return (
    <>
      {withClips.length > 1 && (
        <Chips
          label="Cells of"
          hideLabel
          options={withClips.map(({ id, name }) => ({ value: id, text: name }))}
          value={ray.id}
          onChoose={setRayId}
        />
      )}
      {shown && <Followers key={shown.file.id} pad={pad} {...shown} onDone={() => setShown(undefined)} />}
      <DropOnCells kit={kit} pad={pad} cells={cells} onMany={setPlacing} onShown={(file, turnId) => setShown({ file, turnId })}>
        <CellGrid key={ray.id} kit={kit} pad={pad} cells={cells} onRecord={setRecording} onFile={(turnId) => setFilling({ turnId })} />
      </DropOnCells>
      <CellFindings kit={kit} pad={pad} cells={cells} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          label={turns > 0 ? 'Replace the clips' : 'Choose clips'}
          kind={turns > 0 ? 'plain' : 'main'}
          onPress={() => setFilling({})}
        />
        <Button
          label={isOwn ? `Record ${ray.name}` : 'Record here'}
          icon="record-circle-outline"
          onPress={() => setRecording(isOwn ? { kind: 'ray', rayId: ray.id } : { kind: 'pad' })}
        />
        {turns > 1 && bands.length === 1 && (
          <AskButton
            label="Spread as bands"
            warning={leftOutBySpread(bands, 'bands')}
            confirm="Spread, and leave those out"
            onPress={() => spread('bands')}
          />
        )}
        {bands.length > 1 && (
          <AskButton
            label="Spread as turns"
            warning={leftOutBySpread(bands, 'turns')}
            confirm="Spread, and leave those out"
            onPress={() => spread('turns')}
          />
        )}
        {bands.length > 1 && <Button label="Even edges" onPress={() => spread('even')} />}
        {bands.length > 1 && <Button label="Edges by loudness" onPress={() => void setByLoudness()} />}
        {turns > 0 && bands.length < 127 && <Button label="Add a band" onPress={grow} />}
        <Button label="Shape" onPress={() => router.navigate(`/kit/${kit.id}/shape`)} />
      </View>
      {filling && (
        <FillSheet
          kit={kit}
          pad={pad}
          cells={cells}
          turnId={filling.turnId}
          onClose={() => setFilling(undefined)}
          onShown={(file, turnId) => setShown({ file, turnId })}
          onPlace={(files) => {
            setFilling(undefined)
            setPlacing(files)
          }}
        />
      )}
      {placing && <PlaceSheet files={placing} onto={pad} onClose={() => setPlacing(undefined)} />}
      {recording && <RecordHereSheet kit={kit} pad={pad} target={recording} onClose={() => setRecording(undefined)} />}
    </>
  )
}
