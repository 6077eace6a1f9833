import type { Portrait } from '../../alike/portrait'

/** What a part of a file's name can stand for. */
export const nameRoles = ['drum', 'note', 'velocity', 'level', 'microphone', 'take', 'nothing'] as const
export type NameRole = (typeof nameRoles)[number]

/** One part of a name. Parts of different names in the same `slot` are compared with each other. */
export interface NamePart {
  readonly slot: string
  readonly text: string
  readonly number?: number
}

/** A file to be placed by its name. What else is known of it settles what names leave open. */
export interface NamedFile {
  readonly name: string
  /** The folder it lies in, whose name may say something too; folders of folders are parted by a slash. */
  readonly folder?: string
  readonly loudnessDb?: number
  readonly frames?: number
  /** Where the energy of the strike balances, Hz. */
  readonly centreHz?: number
  /** Where its pitch settles, Hz, where that is sure. */
  readonly pitchHz?: number
  /** What it is found by among other sounds. */
  readonly portrait?: Portrait
}

/** How alike two files sound, 0..1; nothing where that was not heard. Files by their places. */
export type Likeness = (file: number, other: number) => number | undefined

/** What a file's name says of it. */
export interface NameFacts {
  readonly drum: string
  readonly note?: number
  readonly microphone?: string
  /** How hard the strike was, for putting in order; and the velocities it answers, where the name says so. */
  readonly level?: number
  readonly range?: readonly [low: number, high: number]
  readonly take?: number
}

/** One kind of part that the names have: what it shows in them, and what it is taken for. */
export interface NameSlot {
  readonly slot: string
  readonly role: NameRole
  /** Different texts of it, in natural order. */
  readonly texts: readonly string[]
}

/** What the names leave open, and the answers it can have. */
export interface NameQuestion {
  readonly slot: string
  readonly texts: readonly string[]
  readonly roles: readonly NameRole[]
}

export interface ReadNames {
  readonly slots: readonly NameSlot[]
  readonly parts: readonly (readonly NamePart[])[]
  readonly facts: readonly NameFacts[]
  readonly question?: NameQuestion
}

export type NameRoles = Readonly<Record<string, NameRole>>
