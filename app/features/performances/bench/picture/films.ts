interface Film {
  readonly name: string
  readonly url: string
}

const chosen = new Map<string, Film>()

/** Films that were chosen since the page was loaded, by the names of their files: they stay on this device, and are never kept or sent. */
export const films = {
  get: (name: string | undefined): Film | undefined => (name === undefined ? undefined : chosen.get(name)),
  put(file: File): Film {
    const before = chosen.get(file.name)
    if (before) URL.revokeObjectURL(before.url)
    const film = { name: file.name, url: URL.createObjectURL(file) }
    chosen.set(file.name, film)
    return film
  },
}
