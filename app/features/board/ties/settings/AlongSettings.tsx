import type { Curve, Kit, PadId } from '@heliaster/core/kit'
import { nameOf } from '@heliaster/core/ties'
import { View } from 'react-native'

import { CheckChips } from '../../../../ui/controls/CheckChips'
import { Slider } from '../../../../ui/controls/Slider'
import { Text } from '../../../../ui/layout/Text'
import { Toggle } from '../../../../ui/controls/Toggle'
import { padName } from '../../../../kit-view/use-kit'
import { usePutTie } from './put-tie'
import type { TieOf } from './put-tie'

type Target = TieOf<'alsoStrike'>['to'][number]

/** What one strike sets off: whom, and for each how often, how loud, how much later and how hard. */
export function AlongSettings({ kit, tie }: { readonly kit: Kit; readonly tie: TieOf<'alsoStrike'> }) {
  const { put, slide, end } = usePutTie(kit, tie)
  const others = kit.pads.filter(({ id }) => id !== tie.from).map((pad) => ({ value: pad.id, text: padName(kit, pad) }))
  const toggle = (padId: PadId) => {
    const left = tie.to.filter(({ pad }) => pad !== padId)
    const to = left.length < tie.to.length ? left : [...tie.to, { pad: padId, chance: 1, gainDb: 0, delaySeconds: 0 }]
    if (to.length > 0) put({ to })
  }
  const change = (padId: PadId, fields: Partial<Target>) => tie.to.map((to) => (to.pad === padId ? targetWith(to, fields) : to))
  return (
    <>
      <CheckChips label="Struck along" options={others} values={tie.to.map(({ pad }) => pad)} onToggle={toggle} />
      {tie.to.map((to) => (
        <AlongTarget
          key={to.pad}
          to={to}
          name={nameOf(kit, to.pad)}
          onPut={(fields) => put({ to: change(to.pad, fields) })}
          onSlide={(fields) => slide({ to: change(to.pad, fields) })}
          onDone={end}
        />
      ))}
      <Toggle
        label="They strike on"
        words="What they strike along sounds too, never back through a pad it came from."
        value={tie.passOn}
        onChange={(passOn) => put({ passOn })}
      />
    </>
  )
}

function targetWith(to: Target, fields: Partial<Target>): Target {
  const made = { ...to, ...fields }
  if (made.velocity === undefined) delete made.velocity
  return made
}

/** A line from the strength that the softest strike makes to that of the hardest. */
const lineOf = (soft: number, hard: number): Curve => ({ points: [{ x: 0, y: soft / 127, bend: 0 }, { x: 1, y: hard / 127, bend: 0 }] }) // prettier-ignore

function endsOf(curve: Curve): readonly [soft: number, hard: number] {
  const { points } = curve
  return [Math.round(127 * (points[0]?.y ?? 0)), Math.round(127 * (points[points.length - 1]?.y ?? 1))]
}

interface TargetProps {
  readonly to: Target
  readonly name: string
  readonly onPut: (fields: Partial<Target>) => void
  readonly onSlide: (fields: Partial<Target>) => void
  readonly onDone: () => void
}

function AlongTarget({ to, name, onPut, onSlide, onDone }: TargetProps) {
  const [soft, hard] = to.velocity ? endsOf(to.velocity) : [1, 127]
  return (
    <View style={{ paddingLeft: 12, gap: 8 }} role="group" aria-label={name}>
      <Text look="strong">{name}</Text>
      <Slider
        label="Chance"
        spoken={`Chance of ${name}`}
        value={Math.round(100 * to.chance)}
        min={0}
        max={100}
        step={1}
        unit="%"
        onSlide={(percent) => onSlide({ chance: percent / 100 })}
        onDone={onDone}
      />
      <Slider
        label="As loud"
        spoken={`Level of ${name}`}
        value={to.gainDb}
        min={-60}
        max={24}
        step={0.1}
        unit="dB"
        neutral={0}
        onSlide={(gainDb) => onSlide({ gainDb })}
        onDone={onDone}
      />
      <Slider
        label="So much later"
        spoken={`Delay of ${name}`}
        value={to.delaySeconds * 1000}
        min={0}
        max={10000}
        step={0.1}
        power={3}
        unit="ms"
        onSlide={(ms) => onSlide({ delaySeconds: ms / 1000 })}
        onDone={onDone}
      />
      <Toggle
        label="Struck by a strength of its own"
        words="Otherwise it is struck as hard as the pad that sets it off."
        value={to.velocity !== undefined}
        onChange={(own) => onPut({ velocity: own ? lineOf(1, 127) : undefined })}
      />
      {to.velocity && (
        <>
          <Slider
            label="From the softest strike"
            spoken={`Strength of ${name} from the softest strike`}
            value={soft}
            min={1}
            max={127}
            step={1}
            unit=""
            onSlide={(value) => onSlide({ velocity: lineOf(value, hard) })}
            onDone={onDone}
          />
          <Slider
            label="From the hardest strike"
            spoken={`Strength of ${name} from the hardest strike`}
            value={hard}
            min={1}
            max={127}
            step={1}
            unit=""
            onSlide={(value) => onSlide({ velocity: lineOf(soft, value) })}
            onDone={onDone}
          />
        </>
      )}
    </View>
  )
}
