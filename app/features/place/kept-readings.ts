import type { AudioHash, Source } from '@heliaster/core/kit'
import type { NameFacts, NamePlan } from '@heliaster/core/place'
import { z } from 'zod'

import { deviceSettings } from '../../ui/device/device-settings'

const factsSchema = z.object({
  drum: z.string(),
  note: z.number().optional(),
  microphone: z.string().optional(),
  level: z.number().optional(),
  take: z.number().optional(),
})
const schema = z.object({ files: z.array(z.tuple([z.string(), factsSchema])) })

/** Of more files than these the oldest are forgotten. */
const MOST_FILES = 3000

const none: z.infer<typeof schema> = { files: [] }
const kept = deviceSettings('heliaster-kept-readings', schema, none)

/** Keeps where each file of a set was said to belong: by its sound, so that other names change nothing of it. */
export function keepReading(files: readonly Source[], plan: NamePlan): void {
  const facts = new Map<string, NameFacts>(kept.getState().files)
  for (const [file, said] of factsOfPlan(plan)) {
    facts.delete(files[file].audio) // what is kept last goes last
    facts.set(files[file].audio, said)
  }
  kept.setState({ files: [...facts].slice(-MOST_FILES) })
}

/** What was kept of a set, if it was of all of its files. */
export function keptReading(files: readonly Pick<Source, 'audio'>[]): NameFacts[] | undefined {
  const facts = new Map<AudioHash, NameFacts>(kept.getState().files as [AudioHash, NameFacts][])
  const own = files.map(({ audio }) => facts.get(audio))
  return files.length > 1 && own.every((one) => one !== undefined) ? own : undefined
}

/** What a plan says of each file: bands by their lowest velocity. */
export function factsOfPlan({ pads }: NamePlan): Map<number, NameFacts> {
  const facts = new Map<number, NameFacts>()
  for (const { name, note, bands } of pads)
    for (const { fromVelocity, turns } of bands)
      for (const { take, files } of turns)
        for (const [microphone, file] of files)
          facts.set(file, {
            drum: name,
            ...(note === undefined ? {} : { note }),
            ...(microphone === '' ? {} : { microphone }),
            ...(bands.length > 1 ? { level: fromVelocity } : {}),
            take,
          })
  return facts
}
