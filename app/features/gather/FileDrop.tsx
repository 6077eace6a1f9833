import { useState } from 'react'
import type { ReactNode } from 'react'
import { View } from 'react-native'

import { droppedFiles } from '../../ui/dropped-files'
import { usePalette } from '../../ui/theme'
import { useElement, useLatest } from '../../ui/use-element'

/** Takes files and folders that are dropped on it; the buttons beside the list do the same. */
export function FileDrop({ onFiles, children }: { readonly onFiles: (files: readonly File[]) => void; readonly children: ReactNode }) {
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
      setIsOver(false)
      void droppedFiles(event.dataTransfer).then((files) => files.length > 0 && latest.current(files))
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
    <View ref={ref} style={{ flex: 1, minHeight: 0, backgroundColor: isOver ? palette.kelpWash : 'transparent' }}>
      {children}
    </View>
  )
}
