import type { Clip } from '../kit/clip'
import type { MatterStep } from '../kit/matter-values'

/** The steps of a clip that do something. */
export const stepsOf = ({ process = [] }: Pick<Clip, 'process'>): MatterStep[] => process.filter(({ bypass }) => !bypass)

export const isWorked = (clip: Pick<Clip, 'process'>): boolean => stepsOf(clip).length > 0
