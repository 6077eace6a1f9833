import { z } from 'zod'

/** Ids are strings that the compiler keeps apart, because a mixed-up id is silent. */
type Id<Kind extends string> = string & { readonly kind: Kind }

export type KitId = Id<'KitId'>
export type PadId = Id<'PadId'>
export type RayId = Id<'RayId'>
export type BandId = Id<'BandId'>
export type TurnId = Id<'TurnId'>
export type TieId = Id<'TieId'>
export type BusId = Id<'BusId'>
export type GrooveId = Id<'GrooveId'>
export type SourceId = Id<'SourceId'>
export type MarkerId = Id<'MarkerId'>
export type StartId = Id<'StartId'>
export type BeadId = Id<'BeadId'>
export type InsertId = Id<'InsertId'>
export type PerformanceId = Id<'PerformanceId'>
/** Of one thing that was played. */
export type EventId = Id<'EventId'>
/** SHA-256 of an audio file's bytes, 64 lower-case hexadecimal digits. */
export type AudioHash = Id<'AudioHash'>

const idText = z.string().regex(/^[A-Za-z0-9_-]{1,64}$/, 'an id has 1 to 64 letters, digits, - or _')
const idSchema = <T extends string>() => idText as unknown as z.ZodType<T>

export const kitIdSchema = idSchema<KitId>()
export const padIdSchema = idSchema<PadId>()
export const rayIdSchema = idSchema<RayId>()
export const bandIdSchema = idSchema<BandId>()
export const turnIdSchema = idSchema<TurnId>()
export const tieIdSchema = idSchema<TieId>()
export const busIdSchema = idSchema<BusId>()
export const grooveIdSchema = idSchema<GrooveId>()
export const sourceIdSchema = idSchema<SourceId>()
export const markerIdSchema = idSchema<MarkerId>()
export const startIdSchema = idSchema<StartId>()
/** A bead that was put on a step is named by its pad and that step, so that two devices that put one there put the same. */
export const beadIdSchema = z.string().regex(/^[A-Za-z0-9_.-]{1,100}$/, 'a bead has an id of its own') as unknown as z.ZodType<BeadId>
export const insertIdSchema = idSchema<InsertId>()
export const performanceIdSchema = idSchema<PerformanceId>()
export const eventIdSchema = idSchema<EventId>()
export const audioHashSchema = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'audio is named by 64 hexadecimal digits') as unknown as z.ZodType<AudioHash>

const ALPHABET = '0123456789abcdefghijkmnpqrstvwxyz'

/** Makes ids from a source of chance in 0..1, so that tests and the command line repeat themselves. */
export function createIds(random: () => number): <T extends string>(prefix: string) => T {
  return <T extends string>(prefix: string) => {
    let text = prefix + '-'
    for (let i = 0; i < 12; i++) text += ALPHABET[Math.floor(random() * ALPHABET.length)]
    return text as T
  }
}
export type MakeId = ReturnType<typeof createIds>
