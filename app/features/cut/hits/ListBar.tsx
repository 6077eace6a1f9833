import type { Warning } from '@heliaster/core/cut'
import { familiesAmong, familyWords } from '@heliaster/core/kit'
import type { Family } from '@heliaster/core/kit'
import { useState } from 'react'
import { Pressable, View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Icon } from '../../../ui/drawing/Icon'
import { Sheet } from '../../../ui/layout/Sheet'
import { NumberField } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../ui/theme/theme'
import { Toggle } from '../../../ui/controls/Toggle'
import { WARNING_WORDS } from './hit-clip'
import { hitSorts, plainHitList } from './hit-list'
import type { HitListView } from './hit-list'
import type { CutHit } from '../bench/use-source-cut'

interface Props {
  readonly hits: readonly CutHit[]
  readonly view: HitListView
  readonly onView: (view: HitListView) => void
  readonly onHearAll: () => void
  readonly isHearing: boolean
  readonly onNames: () => void
  readonly onRepairs: () => void
}

const ONLY = [
  { value: 'all', text: 'All' },
  { value: 'open', text: 'Not judged' },
  { value: 'kept', text: 'Kept' },
  { value: 'passed', text: 'Passed' },
  { value: 'warned', text: 'With a warning' },
] as const

const isNarrowed = ({ only, family, warning, from, to }: HitListView) =>
  only !== 'all' || family !== undefined || warning !== undefined || from !== undefined || to !== undefined

/** What the list is sorted by, and whether it shows all of them. */
export function orderWords(view: HitListView): string {
  const sort = hitSorts.find((one) => one.value === view.sort)!.text
  return `${sort}${isNarrowed(view) ? ', some of them' : ''}`
}

/** What is done to all hits: heard in a row, repaired, named, and which of them the list shows in what order. */
export function ListBar({ hits, view, onView, onHearAll, isHearing, onNames, onRepairs }: Props) {
  const palette = usePalette()
  const [open, setOpen] = useState(false)
  const none = hits.length === 0
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', paddingLeft: 16, paddingRight: 4, height: TOUCH }}>
      <Pressable
        role="button"
        aria-label={`Order of the list: ${orderWords(view)}`}
        onPress={() => setOpen(true)}
        style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 6, height: TOUCH, minWidth: 0 }}
      >
        <Icon name="sort" size={18} color={palette.ink} />
        <Text look="label" numberOfLines={1} style={{ flexShrink: 1 }}>{`By ${orderWords(view).toLowerCase()}`}</Text>
      </Pressable>
      <Button kind="quiet" label={isHearing ? 'Stop hearing' : 'Hear all'} disabled={none} onPress={onHearAll} />
      <Button kind="quiet" label="Repair" disabled={none} onPress={onRepairs} />
      <Button kind="quiet" label="Name hits" disabled={none} onPress={onNames} />
      {open && <ListSheet hits={hits} view={view} onView={onView} onClose={() => setOpen(false)} />}
    </View>
  )
}

export function ListSheet({ hits, view, onView, onClose }: Pick<Props, 'hits' | 'view' | 'onView'> & { readonly onClose: () => void }) {
  const families = familiesAmong(hits.flatMap(({ hit }) => (hit ? [hit.family] : [])))
  const warnings = [...new Set(hits.flatMap(({ hit }) => hit?.warnings ?? []))]
  return (
    <Sheet
      title="Hits in the list"
      isOpen
      onClose={onClose}
      actions={<Button label="Show all, by time" onPress={() => onView(plainHitList)} />}
    >
      <Chips
        label="Sorted by"
        options={hitSorts}
        value={view.sort}
        onChoose={(sort) => onView({ ...view, sort, from: undefined, to: undefined })}
      />
      <Between view={view} onView={onView} />
      <Toggle label="High to low" value={view.isReversed} onChange={(isReversed) => onView({ ...view, isReversed })} />
      <Chips label="Show" options={ONLY} value={view.only} onChoose={(only) => onView({ ...view, only })} />
      {families.length > 1 && (
        <Chips
          label="Family"
          options={[{ value: 'any' as const, text: 'Any' }, ...families.map((value) => ({ value, text: familyWords(value) }))]}
          value={view.family ?? 'any'}
          onChoose={(family: Family | 'any') => onView({ ...view, family: family === 'any' ? undefined : family })}
        />
      )}
      {warnings.length > 0 && (
        <Chips
          label="Warning"
          options={[{ value: 'any' as const, text: 'Any or none' }, ...warnings.map((value) => ({ value, text: WARNING_WORDS[value] }))]}
          value={view.warning ?? 'any'}
          onChoose={(warning: Warning | 'any') => onView({ ...view, warning: warning === 'any' ? undefined : warning })}
        />
      )}
    </Sheet>
  )
}

/** Only hits whose value, of what they are sorted by, lies between two; an emptied number is no limit. */
function Between({ view, onView }: Pick<Props, 'view' | 'onView'>) {
  const { text, unit } = hitSorts.find((sort) => sort.value === view.sort)!
  if (!unit) return null
  const field = (word: string, key: 'from' | 'to') => (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
      <Text look="label" tone="muted">
        {word}
      </Text>
      <NumberField
        label={`${text} ${word}, ${unit}`}
        text={view[key] === undefined ? '' : String(view[key])}
        unit={unit}
        width={84}
        onNumber={(value) => onView({ ...view, [key]: value })}
        onEmpty={() => onView({ ...view, [key]: undefined })}
      />
    </View>
  )
  return (
    <View style={{ flexDirection: 'row', gap: 20 }}>
      {field('from', 'from')}
      {field('to', 'to')}
    </View>
  )
}
