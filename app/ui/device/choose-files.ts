/** Asks for files. An empty list when the person thinks better of it. */
export function chooseFiles(accept: string, multiple: boolean): Promise<File[]> {
  return ask((input) => {
    input.accept = accept
    input.multiple = multiple
  })
}

export function canChooseFolders(): boolean {
  return (
    typeof HTMLInputElement !== 'undefined' &&
    'webkitdirectory' in HTMLInputElement.prototype &&
    !/Android|iPhone|iPad/.test(navigator.userAgent)
  )
}

/** Asks for a folder, and gives the audio files in it and below. */
export async function chooseFolder(): Promise<File[]> {
  const files = await ask((input) => (input.webkitdirectory = true))
  return files.filter(isAudioName)
}

/** Whether a file of a folder is worth reading; what a person names by itself is always tried. */
export function isAudioName(file: { readonly name: string }): boolean {
  return /\.(wav|wave|aiff?|aifc|flac|mp3|og[ga]|opus)$/i.test(file.name) && !file.name.startsWith('.')
}

function ask(prepare: (input: HTMLInputElement) => void): Promise<File[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input')
    input.type = 'file'
    input.style.display = 'none'
    prepare(input)
    const finish = (files: File[]) => {
      input.remove()
      resolve(files)
    }
    input.addEventListener('change', () => finish([...(input.files ?? [])]))
    input.addEventListener('cancel', () => finish([]))
    document.body.append(input)
    input.click()
  })
}

/** Gives a file to the person. */
export function saveFile(name: string, bytes: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([bytes], { type }))
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 60_000)
}
