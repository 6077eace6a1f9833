/** A name that every file system takes: no separators, no control characters, not empty, not overlong. */
export function fileName(name: string): string {
  const cleaned = name
    .normalize('NFC')
    .replace(/[\u0000-\u001f<>:"/\\|?*]+/g, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[. ]+|[. ]+$/g, '')
    .slice(0, 80)
  return cleaned || 'unnamed'
}

/** Gives each name once; a second one of the same name gets a number. Upper and lower case count as the same. */
export function uniqueNames(): (name: string) => string {
  const taken = new Set<string>()
  return (name) => {
    let candidate = name
    for (let n = 2; taken.has(candidate.toLowerCase()); n++) candidate = `${name} ${n}`
    taken.add(candidate.toLowerCase())
    return candidate
  }
}
