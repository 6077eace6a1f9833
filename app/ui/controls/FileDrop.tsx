// The elements know no files.
import { useState } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'

import { droppedFiles } from '../device/dropped-files'
import { usePalette } from '../theme/theme'
import { useElement, useLatest } from '../pointer/use-element'

interface Props {
  /** The files, and what they were dropped on. */
  readonly onFiles: (files: readonly File[], on: Element | null) => void
  /** Whether it takes all the room there is; else it is as high as what is in it. */
  readonly fills?: boolean
  readonly children: ReactNode
}

/** Takes files and folders that are dropped on it. */
export function FileDrop({ onFiles, fills = true, children }: Props) {
  const palette = usePalette()
  const [isOver, setIsOver] = useState(false)
  const latest = useLatest(onFiles)
  const ref = useElement((element) => {
    const over = (event: DragEvent) => {
      event.preventDefault()
      setIsOver(true)
    }
    const leave = () => setIsOver(false)
    const drop = (event: DragEvent) => {
      event.preventDefault()
      event.stopPropagation() // of two that lie in each other, the inner one takes the files
      setIsOver(false)
      const on = document.elementFromPoint(event.clientX, event.clientY)
      void droppedFiles(event.dataTransfer).then((files) => files.length > 0 && latest.current(files, on))
    }
    element.addEventListener('dragover', over)
    element.addEventListener('dragleave', leave)
    element.addEventListener('drop', drop)
    return () => {
      element.removeEventListener('dragover', over)
      element.removeEventListener('dragleave', leave)
      element.removeEventListener('drop', drop)
    }
  })
  return (
    <View ref={ref} style={{ ...(fills ? { flex: 1, minHeight: 0 } : {}), backgroundColor: isOver ? palette.kelpWash : 'transparent' }}>
      {children}
    </View>
  )
}
