/** The song as it goes beside a groove from its first beat, one channel at a rate in Hz; nothing where none plays. */
export type BesidePart = (kitBpm: number, seconds: number, sampleRateHz: number) => Float32Array | undefined

let part: BesidePart | undefined

/** Told by what plays a song, once that is there. */
export function tellBeside(told: BesidePart): void {
  part = told
}

/** What plays beside the groove, for who listens to the mix: a place that plays no song need not load what does. */
export const besidePart: BesidePart = (...given) => part?.(...given)
