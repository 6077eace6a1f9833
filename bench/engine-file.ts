import { pathToFileURL } from 'node:url'

import type * as engineModule from '@heliaster/core/engine'

export type Engine = typeof engineModule

/** The engine as built: the same file that plays in the page. */
export async function loadEngine(): Promise<Engine> {
  const builder = (await import('../tools/build-engine.mjs' as string)) as { buildEngine(): Promise<string> }
  return (await import(pathToFileURL(await builder.buildEngine()).href)) as Engine
}
