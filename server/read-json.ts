import type { Context } from 'hono'

import { refuse } from './api-error'

/** The JSON of a request, or an error that says it is none. */
export async function readJson(c: Context): Promise<unknown> {
  try {
    return await c.req.json()
  } catch {
    return refuse(400, 'notJson', 'The request is not JSON.')
  }
}
