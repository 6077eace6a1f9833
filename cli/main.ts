import { parseArgs } from 'node:util'

import { InputFault } from './input-fault'

export const usage = `heliaster cut FILE [--sensitivity 0..1] [--gap MS] [--slow] [--in-time] [--snap attack|up|down|none] [--json] [--out DIR]
              [--parts N | --tempo BPM [--beats B] [--first S]] [--on-grid] [--low-cut HZ] [--remove-dc] [--even %] [--peak DB] [--fit together|each]
heliaster kit PATH... --out KIT.zip [--by order|loudness|names] [--pattern "{drum}_v{level}_rr{take}"]
heliaster shape KIT.zip --pad NAME [--ray NAME] [NAME=VALUE... --out KIT.zip]
heliaster groove KIT.zip [--groove NAME | --song] [--laps N] [--strikes | --out FILE.mid|FILE.json]
                 [--put FILE.mid|FILE.json --out KIT.zip]
heliaster render KIT.zip --notes FILE.json|FILE.mid --out OUT.wav [--rate HZ] [--seed N] [--events] [--stems DIR]
heliaster stems KIT.zip [--groove NAME | --song] [--laps N] [--by pad|bus|ray] [--dry] [--rate HZ] --out DIR
heliaster matter FILE|FOLDER... --out DIR [--length %] [--pitch SEMITONES] [--keep-resonances %] [--fresh-noise %] [--beats N --tempo BPM] [--speed S:%,...]
                 [--keep MS] [--grains MS --at-once N --stray MS --stray-cents C --draw N] [--resonances %]
                 [--part | --ringing | --noise [--anew %]] [--divide HZ] [--steady MS]
heliaster ship KIT.zip --as sfz|wav [--fit together|each] --out DIR
heliaster check KIT.zip|FILE... [--as sfz|wav]`

/** What a command was given: its files, and its options by name. */
export interface Given {
  readonly paths: string[]
  readonly options: Readonly<Record<string, string | boolean | undefined>>
}

export interface Command {
  readonly options: Readonly<Record<string, { readonly type: 'string' | 'boolean' }>>
  /** How many paths it takes, at least and at most. */
  readonly paths: readonly [least: number, most: number]
  run(given: Given): Promise<void>
}

/** A call whose words are wrong; the answer names the word. */
export class WrongUsage extends Error {}

/** Each is loaded when it is called. */
const commands: Record<string, () => Promise<Command>> = {
  cut: async () => (await import('./commands/cut')).cut,
  kit: async () => (await import('./commands/kit')).kit,
  shape: async () => (await import('./commands/shape')).shape,
  groove: async () => (await import('./commands/groove')).groove,
  render: async () => (await import('./commands/render')).render,
  stems: async () => (await import('./commands/stems')).stems,
  matter: async () => (await import('./commands/matter')).matter,
  ship: async () => (await import('./commands/ship')).ship,
  check: async () => (await import('./commands/check')).check,
}

/** Runs one call. Exit codes: 0 done, 1 the input is at fault, 2 wrong usage. */
export async function main(words: string[]): Promise<number> {
  const [name, ...rest] = words
  if (!name || name === '--help' || name === 'help') {
    console.log(usage)
    return name ? 0 : 2
  }
  try {
    const command = await commands[name]?.()
    if (!command) throw new WrongUsage(`There is no command "${name}".`)
    await command.run(parse(command, rest))
    return 0
  } catch (error) {
    if (error instanceof WrongUsage) {
      console.error(`${error.message}\n\n${usage}`)
      return 2
    }
    if (error instanceof InputFault) {
      console.error(error.message)
      return 1
    }
    throw error
  }
}

function parse(command: Command, words: string[]): Given {
  let parsed
  try {
    parsed = parseArgs({ args: joinedNegatives(words), options: command.options, allowPositionals: true })
  } catch (error) {
    throw new WrongUsage(error instanceof Error ? error.message : String(error))
  }
  const [least, most] = command.paths
  const count = parsed.positionals.length
  if (count < least) throw new WrongUsage('A file to work on is missing.')
  if (count > most) throw new WrongUsage(`Only ${most} file is taken here; "${parsed.positionals[most]}" is one too many.`)
  return { paths: parsed.positionals, options: parsed.values as Given['options'] }
}

/** A number below zero behind an option is its number, not an option of its own. */
function joinedNegatives(words: readonly string[]): string[] {
  return words.reduce<string[]>((all, word) => {
    const last = all.at(-1)
    if (last && /^--[a-z-]+$/.test(last) && /^-\d/.test(word)) return [...all.slice(0, -1), `${last}=${word}`]
    return [...all, word]
  }, [])
}

/** A number option, within its range. */
export function numberOption(given: Given, name: string, fallback: number, low: number, high: number): number {
  const text = given.options[name]
  if (text === undefined) return fallback
  const value = Number(text)
  if (text === '' || !(value >= low && value <= high))
    throw new WrongUsage(`--${name} takes a number from ${low} to ${high}, not "${text}".`)
  return value
}

export function requiredOption(given: Given, name: string): string {
  const text = given.options[name]
  if (typeof text !== 'string' || text === '') throw new WrongUsage(`--${name} is missing.`)
  return text
}

export function choiceOption<T extends string>(given: Given, name: string, choices: readonly T[], fallback?: T): T {
  const text = given.options[name] ?? fallback
  const choice = choices.find((candidate) => candidate === text)
  if (!choice) throw new WrongUsage(`--${name} is one of ${choices.join(', ')}${text === undefined ? '' : `, not "${text}"`}.`)
  return choice
}
