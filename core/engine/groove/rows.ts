import { GrooveHead, SectionField } from '../program/layout'
import type { EngineState } from '../state'

/** Where a section of the groove that is played stands; that which sounds now, where none is said. */
export function sectionRow({ groove, memory }: EngineState, section = groove.section): number {
  return groove.program + memory.arena[groove.program + GrooveHead.sections] + section * SectionField.length
}
