import { createStore } from 'zustand'

interface Film {
  readonly name: string
  readonly url: string
}

/** Films that were chosen since the page was loaded, by the names of their files: they stay on this device, and are never kept or sent. */
export const films = createStore<Readonly<Record<string, Film>>>(() => ({}))

export function putFilm(file: File): Film {
  const before = films.getState()[file.name]
  if (before) URL.revokeObjectURL(before.url)
  const film = { name: file.name, url: URL.createObjectURL(file) }
  films.setState({ [file.name]: film })
  return film
}
