import type { Source } from '@heliaster/core/kit'
import { pairsOfStrikes, pairsOfSuspects, wrongFiles } from '@heliaster/core/place'
import type { NamePlan, WrongFile } from '@heliaster/core/place'
import { soundingOfMeasured } from '@heliaster/core/alike'
import { useEffect, useState } from 'react'

import { hearPairs } from './use-likeness'

const NONE: readonly WrongFile[] = []
/** More pairs than this would keep a phone busy for minutes; then only likeness of things is told. */
const MOST_PAIRS = 1500

/** Files that by their sound belong elsewhere than their names say; none until they have been heard. */
export function useWrongFiles(files: readonly Source[], plan: NamePlan, isAsked: boolean): readonly WrongFile[] {
  const [found, setFound] = useState<{ readonly plan: NamePlan; readonly wrong: readonly WrongFile[] }>()
  useEffect(() => {
    if (!isAsked) return
    let gone = false
    find(files, plan).then(
      (wrong) => !gone && setFound({ plan, wrong }),
      () => undefined, // what cannot be heard is placed by its name
    )
    return () => {
      gone = true
    }
  }, [files, plan, isAsked])
  return found?.plan === plan ? found.wrong : NONE
}

async function find(files: readonly Source[], plan: NamePlan): Promise<WrongFile[]> {
  const portraits = files.map(({ measured }) => soundingOfMeasured(measured)?.portrait)
  const strikes = pairsOfStrikes(plan)
  if (strikes.length > MOST_PAIRS) return wrongFiles(plan, () => undefined, portraits)
  const first = await hearPairs(files, strikes)
  const more = await hearPairs(files, pairsOfSuspects(plan, (a, b) => first.get(`${a} ${b}`)).slice(0, MOST_PAIRS))
  return wrongFiles(plan, (a, b) => first.get(`${a} ${b}`) ?? more.get(`${a} ${b}`), portraits)
}
