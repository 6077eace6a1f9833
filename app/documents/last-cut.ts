import { tempoInName, toldTempo } from '@heliaster/core/cut'
import { cutSchema, cutStartOf, playedInTime, USUAL_GAP_SECONDS } from '@heliaster/core/kit'
import type { AudioInfo, CutSettings, Source } from '@heliaster/core/kit'

import { deviceSettings } from '../ui/device/device-settings'

const KEY = 'heliaster-last-cut'
const plain: CutSettings = { waterLine: 0.3, findsLevel: true, minGapSeconds: USUAL_GAP_SECONDS }
/** A file shorter than this is one hit, whatever grid the last recording was cut on. */
const ONE_HIT_SECONDS = 2

const kept = deviceSettings(KEY, cutSchema, plain)

/** The way someone has just chosen to cut is the way the next recording begins with. */
export function rememberCut(cut: CutSettings): void {
  const { inTime: _own, ...way } = cutStartOf(playedInTime(cut, false)) // whether someone keeps a pulse is known of one recording alone
  kept.setState({ ...way, waterLine: plain.waterLine, findsLevel: true }, true)
}

/** How a new recording is cut: in the way chosen last, at its own tempo where its file or its name says one. */
export function cutToBeginWith(name: string, info: Pick<AudioInfo, 'frames' | 'sampleRateHz'>, told: Source['told'] = {}): CutSettings {
  const { grid, ...way } = kept.getState()
  const last = { ...way, findsLevel: true } // another recording divides elsewhere
  if (!grid || info.frames < ONE_HIT_SECONDS * info.sampleRateHz) return last
  if (grid.kind !== 'beats') return { ...last, grid }
  return { ...last, grid: { ...grid, tempoBpm: toldTempo(told, info.frames / info.sampleRateHz) ?? tempoInName(name) ?? grid.tempoBpm } }
}
