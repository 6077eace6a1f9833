/** Why there is no sound, in a sentence for a person. */
export class NoSound extends Error {}

/** Where the engine's one file is, whose name changes with its bytes. Throws NoSound where the server does not say. */
export async function engineUrl(): Promise<string> {
  const response = await fetch('/engine/engine.json', { cache: 'no-cache' })
  if (!response.ok) throw new NoSound('The sound engine could not be loaded from the server. Reload the page.')
  return `/engine/${((await response.json()) as { file: string }).file}`
}
