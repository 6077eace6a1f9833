import type { PerformanceId } from '@heliaster/core/kit'

interface Film {
  readonly name: string
  readonly url: string
}

const chosen = new Map<PerformanceId, Film>()

/** Films that were chosen since the page was loaded: they stay on this device, and are never kept or sent. */
export const films = {
  get: (id: PerformanceId): Film | undefined => chosen.get(id),
  put(id: PerformanceId, file: File): Film {
    const before = chosen.get(id)
    if (before) URL.revokeObjectURL(before.url)
    const film = { name: file.name, url: URL.createObjectURL(file) }
    chosen.set(id, film)
    return film
  },
}
