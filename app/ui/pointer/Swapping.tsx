// Renders @dnd-kit's context with its sensors for mouse, finger and keys.
import {
  DndContext,
  KeyboardSensor,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import type { Announcements, KeyboardCoordinateGetter, UniqueIdentifier } from '@dnd-kit/core'
import { useCallback } from 'react'
import type { ReactNode } from 'react'
import type { View } from 'react-native'

import { useLatest } from './use-latest'

const MOVED_PX = 8
/** A finger rests this long before it takes something up, so that it can still scroll. */
const REST_MS = 300

interface Props<Id extends string> {
  /** How a thing or a place is called, for who cannot see it. */
  readonly nameOf: (id: Id) => string
  readonly onDrop: (dragged: Id, onto: Id) => void
  readonly children: ReactNode
}

/** Space takes up and lets go; the arrows belong to the sensor meanwhile. Enter stays with what is pressed. */
const KEYS = { start: ['Space'], end: ['Space'], cancel: ['Escape', 'Tab'] }

const DIRECTIONS: Readonly<Record<string, readonly [x: number, y: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** The arrows go from place to place: to the nearest whose middle lies that way, rather that way than aside. */
const toNextPlace: KeyboardCoordinateGetter = (event, { currentCoordinates, context }) => {
  const direction = DIRECTIONS[event.code]
  const { collisionRect, droppableRects } = context
  if (!direction || !collisionRect) return undefined
  event.preventDefault()
  const middle = (box: { left: number; top: number; width: number; height: number }) => [box.left + box.width / 2, box.top + box.height / 2]
  const [x, y] = middle(collisionRect)
  let next: { far: number; byX: number; byY: number } | undefined
  for (const box of droppableRects.values()) {
    const [toX, toY] = middle(box)
    const [byX, byY] = [toX - x, toY - y]
    const along = byX * direction[0] + byY * direction[1]
    const aside = Math.abs(byX * direction[1]) + Math.abs(byY * direction[0])
    const far = along + 3 * aside
    if (along > 2 && (!next || far < next.far)) next = { far, byX, byY }
  }
  return next && { x: currentCoordinates.x + next.byX, y: currentCoordinates.y + next.byY }
}

/** Things dragged onto each other: at once by mouse, after a rest by finger, taken up by Space and moved by arrow keys. */
export function Swapping<Id extends string>({ nameOf, onDrop, children }: Props<Id>) {
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: MOVED_PX } }),
    useSensor(TouchSensor, { activationConstraint: { delay: REST_MS, tolerance: MOVED_PX } }),
    useSensor(KeyboardSensor, { keyboardCodes: KEYS, coordinateGetter: toNextPlace }),
  )
  const name = (id: UniqueIdentifier) => nameOf(String(id) as Id)
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${name(active.id)} is taken up.`,
    onDragOver: ({ active, over }) => (over && over.id !== active.id ? `Over ${name(over.id)}.` : 'Over no other place.'),
    onDragEnd: ({ active, over }) =>
      over && over.id !== active.id ? `${name(active.id)} is put on ${name(over.id)}.` : `${name(active.id)} stays.`,
    onDragCancel: ({ active }) => `${name(active.id)} stays.`,
  }
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithinOrMiddle}
      accessibility={{
        announcements,
        screenReaderInstructions: { draggable: 'Space takes it up, the arrow keys move it, Space puts it down, Escape leaves it.' },
      }}
      onDragEnd={({ active, over }) => {
        if (over && over.id !== active.id) onDrop(String(active.id) as Id, String(over.id) as Id)
      }}
    >
      {children}
    </DndContext>
  )
}

/** What lies under the pointer; by keys, what lies under the middle of the thing that is moved. */
const pointerWithinOrMiddle: typeof pointerWithin = (given) => {
  if (given.pointerCoordinates) return pointerWithin(given)
  const { left, top, width, height } = given.collisionRect
  return pointerWithin({ ...given, pointerCoordinates: { x: left + width / 2, y: top + height / 2 } })
}

/** The DOM element behind a View. */
const elementOf = (view: View | null) => view as unknown as HTMLElement | null

/** Something that is dragged, and onto which others are. `props` go on a Pressable, `shift` is how far it is from its place, in px. */
export function useSwapped(id: string) {
  const { setNodeRef: setDragged, listeners, isDragging, transform, attributes } = useDraggable({ id })
  const { setNodeRef: setPlace, isOver } = useDroppable({ id })
  const takeUp = useLatest((event: KeyboardEvent) => {
    if (isDragging) document.dispatchEvent(new KeyboardEvent('keydown', { code: event.code }))
    else listeners?.onKeyDown?.({ nativeEvent: event, preventDefault: () => event.preventDefault() })
  })
  const ref = useCallback(
    (view: View | null) => {
      const element = elementOf(view)
      setDragged(element)
      setPlace(element)
      return element ? keepSpace(element, (event) => takeUp.current(event)) : undefined
    },
    [setDragged, setPlace, takeUp],
  )
  const described = { 'aria-describedby': attributes['aria-describedby'], 'aria-roledescription': 'can be dragged' }
  return { ref, isOver: isOver && !isDragging, isDragging, shift: transform, listeners, described }
}

/** Space is the drag's alone: what is pressed by it too would keep it from the sensor, and be pressed when it is put down. */
function keepSpace(element: HTMLElement, onSpace: (event: KeyboardEvent) => void): () => void {
  const down = (event: KeyboardEvent) => {
    if (event.code !== 'Space' || event.target !== element) return
    event.stopPropagation()
    if (!event.repeat) onSpace(event)
    event.preventDefault()
  }
  element.addEventListener('keydown', down)
  return () => element.removeEventListener('keydown', down)
}

/** A place onto which things are dragged, and which stays. */
export function useSwapPlace(id: string) {
  const { setNodeRef, isOver } = useDroppable({ id })
  return { ref: useCallback((view: View | null) => setNodeRef(elementOf(view)), [setNodeRef]), isOver }
}
