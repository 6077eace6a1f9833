import { looksLevelled } from '@heliaster/core/place'
import { router } from 'expo-router'

import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { notify } from '../../ui/layout/notices'
import { Sheet } from '../../ui/layout/Sheet'
import { Text } from '../../ui/layout/Text'
import { editKit, useKit, useKitId } from '../../kit-view'
import { GroupChoice } from '../../kit-view/GroupChoice'
import { session } from '../../kit-view/session'
import { padName } from '../../kit-view/use-kit'
import { StartChips } from '../starts'
import { BandCount } from './BandCount'
import { DrumsOffer } from './DrumsOffer'
import { NameQuestion, NamesPart } from './NamesPart'
import { OntoPart } from './OntoPart'
import type { PlaceWay } from './place-files'
import { Stars } from './PlacePicture'
import { usePlacing } from './use-placing'
import type { Given } from './use-placing'

interface Props extends Given {
  readonly onClose: () => void
}

const WAYS = [
  { value: 'names', text: 'By name' },
  { value: 'turns', text: 'Turns' },
  { value: 'loudness', text: 'By loudness' },
  { value: 'bands', text: 'In order' },
  { value: 'rays', text: 'Rays' },
] as const
const EACH = { value: 'pads', text: 'Own pads' } as const
const WORDS: Record<PlaceWay, string> = {
  names: 'The names are compared with each other: what they say decides pad, band, turn and microphone.',
  turns: 'They are takes of one thing: each strike plays another.',
  loudness: 'They are one thing struck softly and hard: soft ones answer soft strikes.',
  bands: 'One band each, in the order of their names, soft first.',
  rays: 'They sound together at each strike.',
  pads: 'Every file becomes a pad.',
}

/** Many files onto pads in one step, with a picture of the result before anything moves. */
export function PlaceSheet({ onClose, ...given }: Props) {
  const { onto } = given
  const kit = useKit()
  const kitId = useKitId()
  const own = usePlacing(kit, given)
  const { files, way, reading, placing, placed } = own
  if (!kit || !placing) return null
  const levelled = (way === 'names' || way === 'loudness') && looksLevelled(files.map((file) => file.measured?.peakDb ?? NaN))
  const accept = () => {
    editKit(kitId, own.edits(kit), onto?.id)
    session.setState({ padId: placing.pads[0]?.id })
    const where = placing.pads.length === 1 ? `on ${padName(kit, placing.pads[0])}` : `on ${placing.pads.length} pads`
    notify(`${placed === 1 ? '1 file is' : `${placed} files are`} ${where}.`)
    onClose()
    router.navigate(`/kit/${kitId}/board`)
  }
  return (
    <Sheet
      title={onto ? `${files.length} files onto ${padName(kit, onto)}` : `${files.length} files to pads`}
      isOpen
      onClose={onClose}
      actions={
        <Button
          label={placed === files.length ? `Put all ${placed} there` : `Put ${placed} of ${files.length} there`}
          kind="main"
          disabled={placed === 0}
          onPress={accept}
        />
      }
    >
      <Chips<PlaceWay>
        label="How"
        hideLabel
        options={onto ? WAYS : [WAYS[0], EACH, ...WAYS.slice(1)]}
        value={way}
        onChoose={own.chooseWay}
      />
      <Text look="small" tone="muted">
        {WORDS[way]}
      </Text>
      {way === 'names' && reading.isListening && (
        <Text look="small" role="status">
          The files are being listened to: the names leave open which of them are one strike. The picture may still change.
        </Text>
      )}
      <Stars plan={way === 'names' ? own.plan : undefined} pads={placing.pads} nameOf={(pad) => padName(kit, pad)} />
      <DrumsOffer drums={own.drums} chosen={own.drumNames} onChoose={own.setDrumNames} />
      <BandCount way={way} files={files.length} pad={placing.pads[0]} onCount={own.setBandCount} />
      {way === 'names' && <NameQuestion reading={reading} />}
      {levelled && (
        <Text look="small" tone="coral">
          All of them have the same peak, as if they had been levelled one by one. Then their level no longer tells soft from hard: use
          files as they were recorded, if there are such.
        </Text>
      )}
      {way === 'names' && <NamesPart {...own} />}
      {onto && <OntoPart onto={onto} placing={own} />}
      {!onto && (
        <StartChips
          label={placing.pads.length === 1 ? 'The new pad begins' : 'Each new pad begins'}
          about="pad"
          plain="Plain"
          value={own.start?.id}
          onChoose={own.setStart}
        />
      )}
      {!onto && <GroupChoice kit={kit} label={placing.pads.length === 1 ? 'Group of the new pad' : 'Group of the new pads'} />}
    </Sheet>
  )
}
