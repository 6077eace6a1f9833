import { Chips } from '../../ui/controls/Chips'
import { NameExample, ROLE_WORDS } from './NameExample'
import { Gaps } from './PlacePicture'
import type { Placing } from './use-placing'
import { WrongFiles } from './WrongFiles'

/** The one question that names may leave open. */
export function NameQuestion({ reading }: Pick<Placing, 'reading'>) {
  const { question, slots } = reading.read
  if (!question || reading.isKept) return null
  return (
    <Chips
      label={`What are ${shortened(question.texts)}?`}
      options={question.roles.map((role) => ({ value: role, text: QUESTION_WORDS[role] ?? ROLE_WORDS[role] }))}
      value={slots.find(({ slot }) => slot === question.slot)?.role}
      onChoose={(role) => reading.say({ [question.slot]: role })}
    />
  )
}

/** What else names tell: files that sound as if they were others, what is missing, and an example to put right. */
export function NamesPart({ wrong, names, isRighted, setRighted, plan, reading }: Placing) {
  return (
    <>
      <WrongFiles wrong={wrong} names={names} isRighted={isRighted} onRight={setRighted} />
      <Gaps plan={plan} names={names} />
      <NameExample reading={reading} />
    </>
  )
}

const QUESTION_WORDS: Partial<Record<string, string>> = {
  drum: 'Different pads',
  microphone: 'Microphones of one strike',
  take: 'Takes, heard in turn',
  level: 'From soft to hard',
}

function shortened(texts: readonly string[]): string {
  return texts.length <= 5 ? texts.join(', ') : `${texts.slice(0, 3).join(', ')} … ${texts[texts.length - 1]}`
}
