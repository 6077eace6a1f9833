import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { CHANNEL_CHOICES } from '../../../kit-view/channel-choices'
import { FIT_CHOICES } from '../../../kit-view/fit-choices'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { RepairLevel } from './RepairLevel'
import { RepairSpectrum } from './RepairSpectrum'
import { RepairTone } from './RepairTone'
import { useRepairs } from './use-repairs'
import type { RepairNeeds } from './use-repairs'

interface Props extends RepairNeeds {
  readonly onClose: () => void
}

/** Repairs of one hit or of all in the list. They are settings of the clips: the recording stays as it is. */
export function RepairSheet({ onClose, ...needs }: Props) {
  const { source, chosen, listed } = needs
  const repairs = useRepairs(needs)
  const { scope, setScope, items, one, set, tooLoud, fit, setFit, isWriting, write, isUntouched, undoAll } = repairs
  return (
    <Sheet title="Repair" isOpen onClose={onClose} actions={<Button label="Done" kind="main" onPress={onClose} />}>
      <Chips
        label="Changes touch"
        options={[
          ...(chosen ? [{ value: 'one' as const, text: 'This hit' }] : []),
          { value: 'all' as const, text: listed.length === 1 ? 'The one in the list' : `All ${listed.length} in the list` },
        ]}
        value={scope}
        onChoose={setScope}
      />
      <RepairLevel repairs={repairs} />
      <RepairSpectrum source={source} repairs={repairs} />
      <RepairTone repairs={repairs} />
      {source.info.channels > 1 && (
        <Chips
          label="Takes of the file"
          options={CHANNEL_CHOICES}
          value={one('channel') ?? source.channel}
          onChoose={(channel) => set({ channel })}
        />
      )}
      {tooLoud && (
        <>
          {items.length > 1 && <Chips label="Files that would clip" options={FIT_CHOICES} value={fit} onChoose={setFit} />}
          <Text look="small" tone="coral">
            {tooLoud} The kit plays them as they are set, through its limiter.
          </Text>
        </>
      )}
      <Button
        label={items.length === 1 ? 'Write it out as a new file' : `Write these ${items.length} out as new files`}
        icon="file-plus-outline"
        disabled={items.length === 0 || isWriting}
        busy={isWriting}
        onPress={() => void write()}
      />
      <Button
        label={scope === 'one' ? 'Undo all repairs of this hit' : 'Undo all repairs of these'}
        disabled={isUntouched}
        onPress={undoAll}
      />
    </Sheet>
  )
}
