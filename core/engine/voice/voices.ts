import type { Room } from '../memory/room'
import { MOST_SENDS, PARAMS } from '../program/layout'

/** Voices: one clip of one ray of one strike. */
export const VOICE_POOL = 512

/** Everything that voices change while they sound, a row for each. */
export function createVoices({ doubles, ints }: Room) {
  const f64 = () => doubles(VOICE_POOL)
  const rows = () => doubles(VOICE_POOL * PARAMS)
  const i32 = () => ints(VOICE_POOL)
  return {
    active: i32(), strike: i32(), program: i32(), extraProgram: i32(), ray: i32(), bandHash: f64(), source: i32(),
    chunk: i32(), left: i32(), right: i32(), frames: f64(), position: f64(), startFrame: f64(), endFrame: f64(), over: f64(),
    gain: f64(), pan: f64(), gainLeft: f64(), gainRight: f64(), preGain: f64(), meter: i32(), bus: i32(), busPan: f64(),
    baseRate: f64(), basePlace: f64(), levels: i32(), pitchEnv: i32(), ampEnv: i32(), timeScale: f64(),
    cellStart: f64(), cellEnd: f64(), cellRate: f64(), cellRatio: f64(), cellPlace: f64(), cellPlaceStep: f64(),
    releaseFrame: f64(), releaseLevel: f64(), holds: i32(), loops: i32(),
    fadeStart: f64(), fadeFrames: f64(),
    filterType: i32(), cutoffHz: f64(), damping: f64(), filterEnv: i32(), filterEnvCents: f64(),
    filterCell: f64(), a1: f64(), a2: f64(), a3: f64(), a1Step: f64(), a2Step: f64(), a3Step: f64(),
    leftOne: f64(), leftTwo: f64(), rightOne: f64(), rightTwo: f64(),
    /** Whether anything moves it while it sounds, and its run of frames in which all of it goes straight: see live.ts. */
    isLive: i32(), gridStart: f64(), gridEnd: f64(), runStart: f64(), runEnd: f64(),
    runGain: f64(), runRatio: f64(), runRate: f64(), runRateRatio: f64(), runPlace: f64(), runPlaceStep: f64(),
    runCutoff: f64(), runCutoffRatio: f64(), runDamping: f64(), runDampingStep: f64(),
    /** A row of parameters for each voice: where each stands, by how much it moves a frame, what is smoothed of it, what edits add. */
    offset: rows(), offsetStep: rows(), smooth: rows(), smoothTo: rows(), edited: rows(),
    /** A row of sends for each voice: what goes to each bus, and what it nears. */
    sendGain: doubles(VOICE_POOL * MOST_SENDS), sendTarget: doubles(VOICE_POOL * MOST_SENDS),
  } // prettier-ignore
}
export type Voices = ReturnType<typeof createVoices>
