// The elements know no files: react-dropzone takes them, this dresses it.
import { useRef } from 'react'
import type { DragEvent as ReactDragEvent, ReactNode } from 'react'
import { useDropzone } from 'react-dropzone'
import { unstable_createElement } from 'react-native-web'

import { isWanted } from '../device/dropped-files'
import { usePalette } from '../theme/theme'

interface Props {
  /** The files, and what they were dropped on. */
  readonly onFiles: (files: readonly File[], on: Element | null) => void
  /** Whether it takes all the room there is; else it is as high as what is in it. */
  readonly fills?: boolean
  readonly children: ReactNode
}

/** Takes files and folders that are dropped on it. Of two that lie in each other, the inner one takes them. */
export function FileDrop({ onFiles, fills = true, children }: Props) {
  const palette = usePalette()
  const under = useRef<Element | null>(null)
  const { getRootProps, isDragActive } = useDropzone({
    noClick: true,
    noKeyboard: true,
    noPaste: true,
    noDragEventsBubbling: true,
    onDrop: (files) => {
      const wanted = files.filter(isWanted)
      if (wanted.length > 0) onFiles(wanted, under.current)
    },
  })
  const root = getRootProps({
    // Folders take a while to read, and what was under the pointer may have moved by then.
    onDrop: (event: ReactDragEvent) => void (under.current = document.elementFromPoint(event.clientX, event.clientY)),
    role: undefined,
    tabIndex: undefined,
  })
  const style = { display: 'flex', flexDirection: 'column', ...(fills ? { flex: 1, minHeight: 0 } : {}), backgroundColor: isDragActive ? palette.kelpWash : 'transparent' } // prettier-ignore
  return unstable_createElement('div', { ...root, style, children })
}
