import type { Kit } from '@heliaster/core/kit'
import { checkKit } from '@heliaster/core/ship'
import { fileName } from '@heliaster/core/ship'
import type { Finding, Fit } from '@heliaster/core/ship'
import { transfer } from 'comlink'
import { useEffect, useState } from 'react'
import { ScrollView, View } from 'react-native'

import type { Shipped, ShipForm } from '../../audio/workers/ship-work'
import { shipWork } from '../../audio/workers/workers'
import { Button } from '../../ui/controls/Button'
import { Chips } from '../../ui/controls/Chips'
import { saveFile } from '../../ui/device/choose-files'
import { FIT_CHOICES } from '../../kit-view/fit-choices'
import { Icon } from '../../ui/drawing/Icon'
import { Text } from '../../ui/layout/Text'
import { usePalette } from '../../ui/theme/theme'
import { useKit } from '../../kit-view'
import { gatheredAudio } from './gathered-audio'
import { sizeWords } from './size-words'
import { StemsPart } from './StemsPart'

const FORMS = [
  { value: 'sfz', text: 'SFZ' },
  { value: 'wav', text: 'WAV files' },
  { value: 'stems', text: 'Stems' },
  { value: 'bundle', text: 'Bundle' },
] as const
type Form = (typeof FORMS)[number]['value']
const WORDS: Record<Form, string> = {
  sfz: 'An SFZ file with its WAV files in a zip: bands, turns, levels, places and chokes for any player of SFZ. Shapes are in the files; what SFZ cannot say is named below.',
  wav: 'Every hit as a WAV file of its own, in a folder for each pad, as the hardest strike of its band sounds: level, place, tuning and shape are in it.',
  stems: 'A groove or the song as the kit plays it: the mix, and the parts that add up to it, all of one length.',
  bundle: 'Everything in one file that opens here again, unchanged: the kit and its recordings.',
}

/** Where the kit leaves. What will be written is listed first, and what is wrong is said first. */
export function ShipScreen() {
  const kit = useKit()
  const [form, setForm] = useState<Form>('sfz')
  const [fit, setFit] = useState<Fit>('together')
  const { findings, shipped, problem } = usePrepared(form === 'stems' ? undefined : kit, form === 'stems' ? 'sfz' : form, fit)
  if (!kit) return null
  const save = () =>
    shipped &&
    saveFile(
      `${fileName(kit.name)}${form === 'bundle' ? '.heliaster' : form === 'sfz' ? ' SFZ' : ' WAV'}.zip`,
      shipped.zip,
      'application/zip',
    )
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <ScrollView style={{ flex: 1 }} contentContainerStyle={{ padding: 20, gap: 18, width: '100%', maxWidth: 760, alignSelf: 'center' }}>
        <Chips label="Form" options={FORMS} value={form} onChoose={setForm} />
        <Text look="small" tone="muted">
          {WORDS[form]}
        </Text>
        {form === 'stems' ? (
          <StemsPart key={kit.id} kit={kit} />
        ) : (
          <>
            {form === 'wav' && shipped?.isTooLoud && (
              <Chips label="Files that would clip" options={FIT_CHOICES} value={fit} onChoose={setFit} />
            )}
            <Findings findings={findings} notes={shipped?.notes ?? []} />
            {problem && (
              <Text role="alert" tone="coral">
                {problem}
              </Text>
            )}
            <Listing shipped={shipped} hasPads={kit.pads.length > 0} />
          </>
        )}
      </ScrollView>
      {form !== 'stems' && (
        <View style={{ padding: 10, paddingHorizontal: 20, width: '100%', maxWidth: 760, alignSelf: 'center' }}>
          <Button
            label={shipped ? `Save ${sizeWords(shipped.zip.byteLength)} zip` : 'Save zip'}
            kind="main"
            icon="download"
            disabled={!shipped}
            busy={!shipped && !problem && kit.pads.length > 0}
            onPress={save}
          />
        </View>
      )}
    </View>
  )
}

/** What will be written: every file with its place and size. */
function Listing({ shipped, hasPads }: { readonly shipped: Shipped | undefined; readonly hasPads: boolean }) {
  const palette = usePalette()
  return (
    <View style={{ gap: 2 }}>
      <View
        style={{
          flexDirection: 'row',
          justifyContent: 'space-between',
          paddingBottom: 6,
          borderBottomWidth: 1,
          borderBottomColor: palette.line,
        }}
      >
        <Text look="label">{shipped ? `${shipped.files.length} files` : hasPads ? 'Preparing the files' : 'Nothing to write yet'}</Text>
        <Text look="figures">{shipped ? sizeWords(shipped.files.reduce((sum, file) => sum + file.bytes, 0)) : ''}</Text>
      </View>
      {shipped?.files.slice(0, 300).map((file) => (
        <View key={file.path} style={{ flexDirection: 'row', gap: 12, paddingVertical: 3 }}>
          <Text look="small" numberOfLines={1} style={{ flex: 1 }}>
            {nameOf(file)}
            <Text look="small" tone="muted">{`  ${placeOf(file)}`}</Text>
          </Text>
          <Text look="figures" tone="muted">
            {sizeWords(file.bytes)}
          </Text>
        </View>
      ))}
      {shipped && shipped.files.length > 300 && <Text look="small" tone="muted">{`and ${shipped.files.length - 300} more`}</Text>}
    </View>
  )
}

type Listed = Shipped['files'][number]

/** What a file is called first, then where it lies: of a long path the beginning says least. */
function nameOf({ path, name }: Listed): string {
  return name ?? path.slice(path.lastIndexOf('/') + 1)
}

function placeOf({ path, name }: Listed): string {
  return name ? path : path.slice(0, Math.max(0, path.lastIndexOf('/')))
}

function Findings({ findings, notes }: { readonly findings: readonly Finding[]; readonly notes: readonly string[] }) {
  const palette = usePalette()
  const problems = findings.filter((finding) => finding.severity === 'problem')
  return (
    <View style={{ gap: 8 }}>
      {problems.length === 0 && (
        <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
          <Icon name="check" size={20} color={palette.kelp} />
          <Text look="small">The check found nothing missing.</Text>
        </View>
      )}
      {findings.map((finding, i) => (
        <View key={i} style={{ flexDirection: 'row', gap: 8 }}>
          <Icon
            name={finding.severity === 'problem' ? 'alert-outline' : 'information-outline'}
            size={20}
            color={finding.severity === 'problem' ? palette.coral : palette.waterInk}
          />
          <Text look="small" style={{ flex: 1 }}>
            <Text look="label">{finding.where}: </Text>
            {finding.message}
          </Text>
        </View>
      ))}
      {notes.map((note) => (
        <View key={note} style={{ flexDirection: 'row', gap: 8 }}>
          <Icon name="information-outline" size={20} color={palette.waterInk} />
          <Text look="small" style={{ flex: 1 }}>
            {note}
          </Text>
        </View>
      ))}
    </View>
  )
}

interface Prepared {
  readonly findings: Finding[]
  readonly shipped?: Shipped
  readonly problem?: string
}

/** Gathers the audio, runs the check and writes the files, away from the page, whenever kit or form change. */
function usePrepared(kit: Kit | undefined, form: ShipForm, fit: Fit): Prepared {
  const [prepared, setPrepared] = useState<Prepared>({ findings: [] })
  useEffect(() => {
    if (!kit) return undefined
    let gone = false
    setPrepared({ findings: [] })
    prepare(kit, form, fit).then(
      (ready) => !gone && setPrepared(ready),
      (error: Error) =>
        !gone && setPrepared({ findings: [], problem: `The files could not be written: ${error.message}. Nothing of the kit is changed.` }),
    )
    return () => {
      gone = true
    }
  }, [kit, form, fit])
  return prepared
}

async function prepare(kit: Kit, form: ShipForm, fit: Fit): Promise<Prepared> {
  const audio = await gatheredAudio(kit, form === 'bundle')
  const findings = checkKit(kit, (hash) => audio.has(hash))
  if (kit.pads.length === 0) return { findings }
  return { findings, shipped: await shipWork().write(kit, form, transfer(audio, [...audio.values()]), fit) }
}
