/**
 * What React's compiler works on: places, what stands round them, and the faces of pads. A finger's move on a slider
 * changes the kit, and without the compiler all that shows any of it is drawn anew. What the compiler writes is half as
 * long again, and pages are to be light: the first screen, controls that several places show, and what opens over a place
 * are left as they are.
 */
const ROOMS = ['features', 'shell', 'kit-view/PadFace', 'kit-view/use-undo']
const LEFT = [
  'features/kits',
  'features/place',
  'features/record/',
  'features/record-here',
  'features/starts',
  'features/board/several',
  'features/board/ties',
  'features/board/walk',
  'shell/SaveMark',
  'shell/SaveSheet',
  'shell/AppFrame',
  'shell/NoSuchPage',
]
/** Rooms and files by how their paths begin. */
const isIn = (file, rooms) => rooms.some((room) => file.startsWith(`${__dirname}/${room}`))

module.exports = {
  isCompiled: (file) => isIn(file, ROOMS) && !isIn(file, LEFT) && !file.includes('.test.'),
  /** Changes with what is compiled. */
  version: [...ROOMS, ...LEFT].join(' '),
}
