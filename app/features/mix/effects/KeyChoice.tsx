import { busesAfter } from '../../../kit-view/buses/bus-edits'
import { Chips } from '../../../ui/controls/Chips'
import type { EffectProps } from './EffectPanel'

/** Which bus a compressor or gate listens to: its own, or another one that never comes back here. */
export function KeyChoice({ kit, busId, insert, onChange }: EffectProps) {
  const own = kit.buses.find(({ id }) => id === busId)
  const others = kit.buses.filter((bus) => bus.id !== busId && (!own || !leadsTo(bus)))
  function leadsTo(bus: (typeof kit.buses)[number]): boolean {
    return own !== undefined && busesAfter(kit, bus).every(({ id }) => id !== own.id)
  }
  if (others.length === 0) return null
  return (
    <Chips
      label="Listens to"
      isOneLine
      options={[{ value: 'own', text: 'What passes it' }, ...others.map(({ id, name }) => ({ value: id as string, text: name }))]}
      value={insert.key ?? 'own'}
      onChoose={(choice) => onChange({ key: choice === 'own' ? undefined : (choice as (typeof others)[number]['id']) })}
    />
  )
}
