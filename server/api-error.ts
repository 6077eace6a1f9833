import type { ApiError } from '@heliaster/core/kit'
import { HTTPException } from 'hono/http-exception'
import type { ContentfulStatusCode } from 'hono/utils/http-status'

export function apiError(code: string, message: string, details?: unknown): ApiError {
  return { error: details === undefined ? { code, message } : { code, message, details } }
}

/** Stops a request with an error of the one shape. */
export function refuse(status: ContentfulStatusCode, code: string, message: string, details?: unknown): never {
  const body = JSON.stringify(apiError(code, message, details))
  throw new HTTPException(status, { res: new Response(body, { status, headers: { 'content-type': 'application/json' } }) })
}
