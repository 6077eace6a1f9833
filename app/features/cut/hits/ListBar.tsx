import type { Family, Warning } from '@heliaster/core/cut'
import { useState } from 'react'
import { Pressable, View } from 'react-native'

import { Button, IconButton } from '../../../ui/controls/Button'
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

/** What is done to all hits: heard in a row, repaired, named, and which of them the list shows in what order. */
export function ListBar({ hits, view, onView, onHearAll, isHearing, onNames, onRepairs }: Props) {
  const palette = usePalette()
  const [open, setOpen] = useState(false)
  const sort = hitSorts.find((one) => one.value === view.sort)!.text
  const isNarrowed =
    view.only !== 'all' || view.family !== undefined || view.warning !== undefined || view.from !== undefined || view.to !== undefined
  const none = hits.length === 0
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        paddingLeft: 16,
        paddingRight: 6,
        height: TOUCH,
        borderTopWidth: 1,
        borderTopColor: palette.faint,
      }}
    >
      <Pressable
        role="button"
        aria-label={`Order of the list: ${sort}${isNarrowed ? ', some of them' : ''}`}
        onPress={() => setOpen(true)}
        style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 8, height: TOUCH }}
      >
        <Icon name="sort" size={20} color={palette.ink} />
        <Text look="label" numberOfLines={1}>{`By ${sort.toLowerCase()}${isNarrowed ? ', some of them' : ''}`}</Text>
      </Pressable>
      <IconButton
        name={isHearing ? 'stop' : 'playlist-play'}
        label={isHearing ? 'Stop hearing' : 'Hear all in a row'}
        disabled={none}
        onPress={onHearAll}
      />
      <IconButton name="auto-fix" label="Repair" disabled={none} onPress={onRepairs} />
      <IconButton name="tag-outline" label="Name the hits" disabled={none} onPress={onNames} />
      {open && <ListSheet hits={hits} view={view} onView={onView} onClose={() => setOpen(false)} />}
    </View>
  )
}

function ListSheet({ hits, view, onView, onClose }: Pick<Props, 'hits' | 'view' | 'onView'> & { readonly onClose: () => void }) {
  const families = [...new Set(hits.flatMap(({ hit }) => (hit ? [hit.family] : [])))].sort()
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
          options={[{ value: 'any' as const, text: 'Any' }, ...families.map((value) => ({ value, text: value }))]}
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
