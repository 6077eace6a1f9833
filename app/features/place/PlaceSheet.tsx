import { bandsOfRay, clipsOfPad } from '@heliaster/core/kit'
import type { Pad, Ray, Source, Start } from '@heliaster/core/kit'
import { compareNames, looksLevelled, putRight } from '@heliaster/core/place'
import type { NamePlan } from '@heliaster/core/place'
import { router } from 'expo-router'
import { useMemo, useState } from 'react'

import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { notify } from '../../ui/layout/notices'
import { Sheet } from '../../ui/layout/Sheet'
import { Text } from '../../ui/layout/Text'
import { editKit, useKit, useKitId } from '../../kit-view'
import { GroupChoice, inGroup } from '../../kit-view/GroupChoice'
import { session, useSession } from '../../kit-view/session'
import { padName } from '../../kit-view/use-kit'
import { begunPads, StartChips } from '../starts'
import { BandCount } from './BandCount'
import { drumsAmong, DrumsOffer, withDrums } from './DrumsOffer'
import { keepReading } from './kept-readings'
import { NameExample, ROLE_WORDS } from './NameExample'
import { canStay, placeEdits, placeFiles } from './place-files'
import type { PlaceWay } from './place-files'
import { Gaps, Stars } from './PlacePicture'
import { useLoudness } from './use-loudness'
import { useReading } from './use-reading'
import type { ShownFile } from './use-reading'
import { useWrongFiles } from './use-wrong-files'
import { WrongFiles } from './WrongFiles'

interface Props {
  readonly files: readonly Source[]
  /** A pad whose clips are replaced while its settings stay; new pads without one. */
  readonly onto?: Pad
  /** A file that someone has put into its cell, for the others to follow. */
  readonly shown?: ShownFile
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
export function PlaceSheet({ files: given, onto, shown, onClose }: Props) {
  const kit = useKit()
  const kitId = useKitId()
  const files = useMemo(() => [...given].sort((a, b) => compareNames(a.name, b.name)), [given])
  const [chosenWay, setWay] = useState<PlaceWay>()
  const [stays, setStays] = useState(false)
  const [bandCount, setBandCount] = useState<number>()
  const [start, setStart] = useState<Start>()
  const [drumNames, setDrumNames] = useState<ReadonlySet<string>>(new Set())
  const group = useSession((state) => state.newGroup)
  const loudness = useLoudness(files)
  const reading = useReading(files, loudness, shown)
  const { read, plan: named } = reading
  const way = chosenWay ?? (saysMore(named, files.length) ? 'names' : onto ? 'turns' : 'pads')
  const wrong = useWrongFiles(files, named, way === 'names')
  const [righted, setRighted] = useState<NamePlan>()
  const names = useMemo(() => files.map((file) => file.name), [files])
  const isRighted = righted === named
  const plan = useMemo(() => (isRighted ? putRight(named, wrong, names) : named), [named, isRighted, wrong, names])
  const placing = useMemo(
    () => (kit ? placeFiles(kit, files, { way, plan, onto, stays, loudness, bandCount }) : undefined),
    [kit, files, way, plan, onto, stays, loudness, bandCount],
  )
  const drums = useMemo(() => (kit && placing && !onto ? drumsAmong(kit, placing.pads) : []), [kit, placing, onto])
  if (!kit || !placing) return null
  const levelled = (way === 'names' || way === 'loudness') && looksLevelled(files.map((file) => file.measured?.peakDb ?? NaN))
  const placed = Math.min(
    files.length,
    placing.pads.reduce((sum, pad) => sum + clipCount(pad), 0),
  )
  const silenced = onto ? raysSilenced(onto, placing.pads[0]) : []
  const accept = () => {
    const begun = begunPads(kit, inGroup(kit, placing.pads, group), onto ? undefined : start)
    const laid = [...placeEdits(kit, files, { ...placing, pads: begun.pads }), ...begun.edits]
    editKit(kitId, withDrums(kit, laid, drums.filter(({ name }) => drumNames.has(name))), onto?.id) // prettier-ignore
    if (way === 'names' && reading.isTaught && !reading.isKept) keepReading(files, plan)
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
        onChoose={(next) => (setWay(next), setBandCount(undefined))}
      />
      <Text look="small" tone="muted">
        {WORDS[way]}
      </Text>
      {way === 'names' && reading.isListening && (
        <Text look="small" role="status">
          The files are being listened to: the names leave open which of them are one strike. The picture may still change.
        </Text>
      )}
      <Stars plan={way === 'names' ? plan : undefined} pads={placing.pads} nameOf={(pad) => padName(kit, pad)} />
      <DrumsOffer drums={drums} chosen={drumNames} onChoose={setDrumNames} />
      <BandCount way={way} files={files.length} pad={placing.pads[0]} onCount={setBandCount} />
      {way === 'names' && read.question && !reading.isKept && (
        <Chips
          label={`What are ${shortened(read.question.texts)}?`}
          options={read.question.roles.map((role) => ({ value: role, text: QUESTION_WORDS[role] ?? ROLE_WORDS[role] }))}
          value={read.slots.find(({ slot }) => slot === read.question!.slot)?.role}
          onChoose={(role) => reading.say({ [read.question!.slot]: role })}
        />
      )}
      {levelled && (
        <Text look="small" tone="coral">
          All of them have the same peak, as if they had been levelled one by one. Then their level no longer tells soft from hard: use
          files as they were recorded, if there are such.
        </Text>
      )}
      {way === 'names' && (
        <>
          <WrongFiles wrong={wrong} names={names} isRighted={isRighted} onRight={(right) => setRighted(right ? named : undefined)} />
          <Gaps plan={plan} names={names} />
          <NameExample reading={reading} />
        </>
      )}
      {onto && onto.bands.length > 0 && canStay(way, onto) && (
        <Chips
          label="What is on it already"
          options={[
            { value: 'goes', text: 'Is replaced' },
            { value: 'stays', text: 'Stays, with these besides' },
          ]}
          value={stays ? 'stays' : 'goes'}
          onChoose={(what) => setStays(what === 'stays')}
        />
      )}
      {!onto && (
        <StartChips
          label={placing.pads.length === 1 ? 'The new pad begins' : 'Each new pad begins'}
          about="pad"
          plain="Plain"
          value={start?.id}
          onChoose={setStart}
        />
      )}
      {!onto && <GroupChoice kit={kit} label={placing.pads.length === 1 ? 'Group of the new pad' : 'Group of the new pads'} />}
      {onto && placing.pads.length > 0 && !(stays && canStay(way, onto)) && (
        <Text look="small">{`The clips of ${padName(kit, onto)} are replaced; all its settings stay.`}</Text>
      )}
      {onto && silenced.length > 0 && (
        <Text look="small" tone="coral">
          {`${silenced.join(', ')} ${silenced.length === 1 ? 'gets' : 'get'} no clip from these and ${silenced.length === 1 ? 'is' : 'are'} silent then.`}
        </Text>
      )}
      {onto && way === 'names' && plan.pads.length > 1 && (
        <Text
          look="small"
          tone="coral"
        >{`The names speak of ${plan.pads.length} pads; only ${plan.pads[0].name} goes onto this one.`}</Text>
      )}
    </Sheet>
  )
}

const QUESTION_WORDS: Partial<Record<string, string>> = {
  drum: 'Different pads',
  microphone: 'Microphones of one strike',
  take: 'Takes, heard in turn',
  level: 'From soft to hard',
}

/** Names decide where they tell more than that each file is another thing. */
function saysMore(plan: NamePlan, files: number): boolean {
  return files > 1 && plan.pads.length > 0 && plan.pads.length <= files / 2
}

function clipCount(pad: Pad): number {
  return clipsOfPad(pad).length
}

function shortened(texts: readonly string[]): string {
  return texts.length <= 5 ? texts.join(', ') : `${texts.slice(0, 3).join(', ')} … ${texts[texts.length - 1]}`
}

/** Rays that sound now and would have no clip. */
function raysSilenced(before: Pad, after: Pad | undefined): string[] {
  const sounds = (pad: Pad, ray: Ray) =>
    bandsOfRay(pad, ray).some((band) => band.turns.some((turn) => turn.clips[ray.id] && turn.clips[ray.id] !== 'intendedSilence'))
  if (!after) return []
  return after.rays
    .filter((ray) => before.rays.some(({ id }) => id === ray.id) && sounds(before, ray) && !sounds(after, ray))
    .map(({ name }) => name)
}
