import { dbToGainIn } from '../math'
import { KitHead, MAX_BUSES, MovedField, MoveField, MOVE_STEPS, UnitField } from '../program/layout'
import type { EngineState } from '../state'

/** What is worked out, handed from one function to the next: a number in a cell costs no memory (see math.ts). */
const x = new Float64Array(1)

/** Leads places of buses to where what moves them has come. Returns whether any is another one now. */
export function leadPlaces({ memory, kit, mix }: EngineState, targets: Float64Array): boolean {
  const { arena } = memory
  let isMoved = false
  for (let i = 0; i < arena[kit + KitHead.movedCount]; i++) {
    const slot = arena[kit + arena[kit + KitHead.moved] + i * MovedField.length + MovedField.slot]
    if (slot === 0 || mix.movedPan[slot] === targets[MAX_BUSES + i]) continue
    mix.movedPan[slot] = targets[MAX_BUSES + i]
    isMoved = true
  }
  return isMoved
}

/** Leads the numbers of effects likewise; they near it by degrees, as they near what is set. */
export function leadEffects({ memory, kit, inserts }: EngineState, targets: Float64Array): void {
  const { arena } = memory
  const { units } = inserts
  const first = kit + arena[kit + KitHead.moves]
  const count = arena[kit + KitHead.moveCount]
  for (let i = 0; i < count;) {
    const row = first + i * MoveField.length
    const unit = arena[row + MoveField.unit] * UnitField.length
    const value = arena[row + MoveField.value]
    const isRatio = arena[row + MoveField.isRatio] !== 0
    let sum = 0
    for (; i < count && isOfSame(arena, row, first + i * MoveField.length); i++) {
      shiftOf(arena, kit, first + i * MoveField.length, targets)
      sum += x[0]
    }
    if (units[unit + UnitField.hash] !== arena[row + MoveField.hash]) continue
    x[0] = sum
    if (isRatio) dbToGainIn(x, 0)
    const wanted = isRatio ? arena[row + MoveField.base] * x[0] : arena[row + MoveField.base] + sum
    if (units[unit + UnitField.target0 + value] === wanted) continue
    units[unit + UnitField.target0 + value] = wanted
    units[unit + UnitField.isDirty] = 1
  }
}

/** Whether two rows lead the same number of the same effect. */
function isOfSame(arena: Float64Array, a: number, b: number): boolean {
  return arena[a + MoveField.unit] === arena[b + MoveField.unit] && arena[a + MoveField.value] === arena[b + MoveField.value]
}

/** What a row's table says of where its setting has come, between its points in a straight line. */
function shiftOf(arena: Float64Array, kit: number, row: number, targets: Float64Array): void {
  const by = targets[MAX_BUSES + arena[row + MoveField.moved]]
  const reach = by < 0 ? arena[row + MoveField.down] : arena[row + MoveField.up]
  const share = reach === 0 ? 0 : by / reach
  const place = MOVE_STEPS * (1 + (share < -1 ? -1 : share > 1 ? 1 : share))
  const at = Math.min(Math.floor(place), 2 * MOVE_STEPS - 1)
  const points = kit + arena[row + MoveField.table]
  x[0] = arena[points + at] + (arena[points + at + 1] - arena[points + at]) * (place - at)
}
