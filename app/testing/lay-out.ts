import { act } from '@testing-library/react'

type Laid = HTMLElement & { __reactLayoutHandler?: (event: object) => void }

/** Tells everything on the page that asks for its size that it is this large: the tests' browser lays nothing out. */
export function layOut(width: number, height: number): void {
  act(() => {
    for (const element of document.querySelectorAll<Laid>('*'))
      element.__reactLayoutHandler?.({ nativeEvent: { layout: { x: 0, y: 0, left: 0, top: 0, width, height } } })
  })
}
