import type { z } from 'zod'
import { persist } from 'zustand/middleware'
import type { PersistStorage } from 'zustand/middleware'
import { createStore } from 'zustand/vanilla'

interface Options<T> {
  /** Reads what an older version has written under the same key in a form of its own. */
  readonly older?: (text: string) => Partial<T> | undefined
  readonly storage?: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>
}

/**
 * Settings of this device, kept by the browser and checked when they are read: each that does not fit is as it is
 * usual. Where nothing can be kept, they hold as long as the page. Whatever a setting may be, its schema has to let in.
 */
export function deviceSettings<S extends z.ZodObject, T extends object & z.output<S>>(
  key: string,
  schema: S,
  usual: T,
  options: Options<T> = {},
) {
  const disk = options.storage ?? globalThis.localStorage
  const storage: PersistStorage<T> = {
    getItem: (name) => {
      const text = disk?.getItem(name)
      return text ? { state: (objectIn(text) ?? options.older?.(text) ?? {}) as T } : null
    },
    setItem: (name, { state }) => {
      try {
        disk?.setItem(name, JSON.stringify(state))
      } catch {
        // No room, or not allowed: the settings hold as long as the page.
      }
    },
    removeItem: (name) => disk?.removeItem(name),
  }
  const merge = (kept: unknown, now: T): T => ({ ...now, ...fitting(schema, kept) })
  return createStore<T>()(persist(() => usual, { name: key, storage, merge }))
}

function objectIn(text: string): unknown {
  try {
    const read = JSON.parse(text) as unknown
    return typeof read === 'object' && read !== null ? read : undefined
  } catch {
    return undefined
  }
}

/** Of what was kept, the fields that fit. */
function fitting(schema: z.ZodObject, kept: unknown): object {
  if (typeof kept !== 'object' || kept === null) return {}
  const fields = Object.entries(schema.shape).flatMap(([name, field]) => {
    const parsed = (field as z.ZodType).safeParse((kept as Record<string, unknown>)[name])
    return parsed.success && parsed.data !== undefined ? [[name, parsed.data]] : []
  })
  return Object.fromEntries(fields) as object
}
