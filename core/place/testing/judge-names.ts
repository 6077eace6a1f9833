import type { NamePlan } from '../name-plan'
import type { NameSet } from './name-sets'

/** Whether a plan lays every file of a set right: drums apart, strengths in order, the microphones of a strike together. */
export function laysRight({ files }: NameSet, plan: NamePlan): boolean {
  const places = new Map<number, { pad: number; band: number; turn: number; microphone: string }>()
  plan.pads.forEach(({ bands }, pad) =>
    bands.forEach(({ turns }, band) =>
      turns.forEach((own, turn) => own.files.forEach((file, microphone) => places.set(file, { pad, band, turn, microphone }))),
    ),
  )
  if (places.size !== files.length) return false
  const alike = (of: (i: number) => string, found: (i: number) => string) => {
    const there = new Map<string, string>()
    const back = new Map<string, string>()
    return files.every((_, i) => {
      const [a, b] = [of(i), found(i)]
      const isSame = (there.get(a) ?? b) === b && (back.get(b) ?? a) === a
      there.set(a, b)
      back.set(b, a)
      return isSame
    })
  }
  const place = (i: number) => places.get(i)!
  const drums = alike((i) => String(files[i].drum), (i) => String(place(i).pad)) // prettier-ignore
  const strikes = alike(
    (i) => [files[i].drum, files[i].level, files[i].take].join(),
    (i) => [place(i).pad, place(i).band, place(i).turn].join(),
  )
  // A microphone is told within its drum; a lone one has no name.
  const microphones = alike(
    (i) => [files[i].drum, files[i].microphone].join(),
    (i) => [place(i).pad, place(i).microphone].join(),
  )
  const ordered = files.every((one, i) =>
    files.every(
      (other, k) => one.drum !== other.drum || one.level === other.level || one.level < other.level === place(i).band < place(k).band,
    ),
  )
  return drums && strikes && microphones && ordered
}
