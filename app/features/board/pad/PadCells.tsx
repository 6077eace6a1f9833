import type { Kit, KitEdit, Pad, Source } from '@heliaster/core/kit'
import type { TakeTarget } from '@heliaster/core/place'
import { router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/Button'
import { notify } from '../../../ui/notices'
import { PlaceSheet } from '../../place'
import { RecordHereSheet } from '../../record-here'
import { editKit } from '../../shell'
import { CellGrid } from './CellGrid'
import { FillSheet } from './FillSheet'
import { bandsByLoudness } from './loudness-edges'
import { spreadEdits } from '../pad-edits'

/** What fills a pad: its cells, and the ways to fill and spread them. */
export function PadCells({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const [filling, setFilling] = useState(false)
  const [placing, setPlacing] = useState<readonly Source[]>()
  const [recording, setRecording] = useState<TakeTarget>()
  const turns = pad.bands.reduce((sum, band) => sum + band.turns.length, 0)
  const edit = (edits: KitEdit[]) => editKit(kit.id, edits, pad.id)
  const setByLoudness = async () => {
    try {
      const bands = await bandsByLoudness(pad)
      if (bands) edit([{ type: 'setPadFilling', padId: pad.id, bands, spread: 'loudness' }])
      else notify('The bands do not rise in loudness, so the edges stay. Hear each band: one may be in the wrong place.')
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error))
    }
  }
  return (
    <>
      <CellGrid kit={kit} pad={pad} onRecord={setRecording} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          label={turns > 0 ? 'Replace the clips' : 'Choose clips'}
          kind={turns > 0 ? 'plain' : 'main'}
          onPress={() => setFilling(true)}
        />
        <Button label="Record here" icon="record-circle-outline" onPress={() => setRecording({ kind: 'pad' })} />
        {turns > 1 && pad.bands.length === 1 && <Button label="Spread as bands" onPress={() => edit(spreadEdits(pad, 'bands'))} />}
        {pad.bands.length > 1 && <Button label="Spread as turns" onPress={() => edit(spreadEdits(pad, 'turns'))} />}
        {pad.bands.length > 1 && <Button label="Even edges" onPress={() => edit(spreadEdits(pad, 'even'))} />}
        {pad.bands.length > 1 && <Button label="Edges by loudness" onPress={() => void setByLoudness()} />}
        <Button label="Shape" onPress={() => router.navigate(`/kit/${kit.id}/shape`)} />
        {pad.rays.length > 1 &&
          pad.rays
            .filter((ray) => !ray.microphone)
            .map((ray) => (
              <Button
                key={ray.id}
                label={`Record ${ray.name}`}
                icon="record-circle-outline"
                onPress={() => setRecording({ kind: 'ray', rayId: ray.id })}
              />
            ))}
      </View>
      {filling && (
        <FillSheet
          kit={kit}
          pad={pad}
          onClose={() => setFilling(false)}
          onPlace={(files) => {
            setFilling(false)
            setPlacing(files)
          }}
        />
      )}
      {placing && <PlaceSheet files={placing} onto={pad} onClose={() => setPlacing(undefined)} />}
      {recording && <RecordHereSheet kit={kit} pad={pad} target={recording} onClose={() => setRecording(undefined)} />}
    </>
  )
}
