import { get, put } from '../../../voice/both/cells'
import { bandOf, designCore, FLAT, lowOf, runSection, SECTION_DOUBLES } from './parts'

/**
 * Parts a sample into up to three frequency ranges that add up to it, turned in phase alone
 * (S. H. Linkwitz, "Active crossover networks for noncoincident drivers", JAES 1976):
 *
 *   in ─┬─ low of split 1, twice ── phase of split 2 ─ range 1
 *       └─ high of split 1, twice ─┬─ low of split 2, twice ── range 2
 *                                  └─ high of split 2, twice ─ range 3
 */

/** What one channel keeps: seven sections. */
export const PARTED_DOUBLES: i32 = 28
/** What both splits are designed to. */
export const SPLIT_DOUBLES: i32 = 6

export function designSplits(to: i32, split1: f64, split2: f64): void {
  designCore(to, split1, FLAT)
  designCore(to + 3, split2, FLAT)
}

/** Writes `ranges` numbers from `to` on. */
export function partSample(splits: i32, row: i32, to: i32, ranges: f64, input: f64): void {
  if (ranges === 1) {
    put(to, input)
    return
  }
  const second = row + 3 * SECTION_DOUBLES
  half(splits, row, to, input)
  if (ranges === 2) return
  const low = get(to)
  const high = get(to + 1)
  half(splits + 3, second, to + 1, high)
  const turn = row + 6 * SECTION_DOUBLES
  runSection(splits + 3, turn, low)
  put(to, low - 2 * FLAT * bandOf(turn))
}

/** Low and high of one split. */
function half(core: i32, row: i32, to: i32, input: f64): void {
  runSection(core, row, input)
  const low = lowOf(row)
  const high = input - FLAT * bandOf(row) - low
  runSection(core, row + SECTION_DOUBLES, low)
  runSection(core, row + 2 * SECTION_DOUBLES, high)
  put(to, lowOf(row + SECTION_DOUBLES))
  put(to + 1, high - FLAT * bandOf(row + 2 * SECTION_DOUBLES) - lowOf(row + 2 * SECTION_DOUBLES))
}
