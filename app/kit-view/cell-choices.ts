import type { Pad, TurnId } from '@heliaster/core/kit'

interface CellChoice {
  readonly value: string
  readonly text: string
  readonly cell: { readonly turn?: TurnId }
}

/** The pad's own choice, and each of its cells by band and turn. */
export function cellChoices({ bands }: Pick<Pad, 'bands'>): CellChoice[] {
  const cells = bands.flatMap((band, b) =>
    band.turns.map((turn, t): CellChoice => ({
      value: turn.id,
      text: bands.length > 1 ? `Band ${b + 1}, turn ${t + 1}` : `Turn ${t + 1}`,
      cell: { turn: turn.id },
    })),
  )
  return [{ value: '', text: 'As the pad chooses', cell: {} }, ...cells]
}

/** The cell that all of some strikes or beads ask for; nothing where they differ. */
export function cellOf(strikes: readonly { readonly turn?: TurnId }[]): string | undefined {
  const asked = new Set(strikes.map(({ turn }) => turn ?? ''))
  return asked.size === 1 ? [...asked][0] : undefined
}
