/** Asks for files. An empty list when the person thinks better of it. */
export function chooseFiles(accept: string, multiple: boolean): Promise<File[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input')
    input.type = 'file'
    input.accept = accept
    input.multiple = multiple
    input.style.display = 'none'
    input.addEventListener('change', () => finish([...(input.files ?? [])]))
    input.addEventListener('cancel', () => finish([]))
    const finish = (files: File[]) => {
      input.remove()
      resolve(files)
    }
    document.body.append(input)
    input.click()
  })
}

/** Gives a file to the person. */
export function saveFile(name: string, bytes: ArrayBuffer, type: string): void {
  const url = URL.createObjectURL(new Blob([bytes], { type }))
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 60_000)
}
