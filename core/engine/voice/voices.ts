import type { Room } from '../memory/room'
import {
  CrushField,
  DriveField,
  DRIVES,
  EdgeField,
  FilterField,
  FILTERS,
  MOST_SENDS,
  MovesField,
  PARAMS,
  TransientField,
  VOICE_POOL,
  WaitField,
} from '../program/layout'

/** Everything that voices change while they sound, a row for each. */
export function createVoices({ doubles, ints }: Room) {
  const f64 = () => doubles(VOICE_POOL)
  const rows = () => doubles(VOICE_POOL * PARAMS)
  const i32 = () => ints(VOICE_POOL)
  const moves = doubles(2 * MovesField.steps)
  return {
    active: i32(), strike: i32(), program: i32(), extraProgram: i32(), ray: i32(), bandHash: f64(), source: i32(),
    chunk: i32(), left: i32(), right: i32(), frames: f64(), laidFrames: f64(), position: f64(), startFrame: f64(), endFrame: f64(), over: f64(),
    gain: f64(), pan: f64(), gainLeft: f64(), gainRight: f64(), preGain: f64(), meter: i32(), bus: i32(), busPan: f64(),
    baseRate: f64(), basePlace: f64(), levels: i32(), pitchEnv: i32(), ampEnv: i32(), timeScale: f64(), otherScale: f64(),
    cellStart: f64(), cellEnd: f64(), cellRate: f64(), cellRatio: f64(), cellPlace: f64(), cellPlaceStep: f64(),
    releaseFrame: f64(), releaseLevel: f64(), releaseCents: f64(), levelShare: f64(), pitchShare: f64(), bendShare: f64(), glideCents: f64(), glideEnd: f64(), holds: i32(), loops: i32(),
    /** Where what goes round begins; where its loop lies in the clip, and the clip without it, by which it goes on once let go. */
    roundFrom: f64(), loopStart: f64(), loopPeriod: f64(), loopPlain: f64(), leaves: i32(),
    tailChunk: i32(), tailLeft: i32(), tailRight: i32(), tailFrames: f64(), tailLevels: i32(),
    fadeStart: f64(), fadeFrames: f64(),
    /** Whether it has a filter, which rings on; and its filters, rows of FilterField. */
    rings: i32(), filters: doubles(VOICE_POOL * FILTERS * FilterField.length),
    /** What holds and rounds its samples, a row of CrushField for each, and how far apart its channels stand. */
    crushes: doubles(VOICE_POOL * CrushField.length), width: f64(), edges: doubles(VOICE_POOL * EdgeField.length),
    transients: doubles(VOICE_POOL * TransientField.length), drives: doubles(VOICE_POOL * DRIVES * DriveField.length),
    /** By how many frames it is read ahead of what is heard, whether that was begun, and what it holds back. */
    ahead: f64(), isPrimed: i32(), waits: doubles(VOICE_POOL * WaitField.length),
    /** Whether anything moves it while it sounds, and its run of frames in which all of it goes straight: see live.ts. */
    isLive: i32(), gridStart: f64(), gridEnd: f64(), runStart: f64(), runEnd: f64(),
    runGain: f64(), runRatio: f64(), runRate: f64(), runRateRatio: f64(), runPlace: f64(), runPlaceStep: f64(),
    /** A row of parameters for each voice: where each stands, by how much it moves a frame, what is smoothed of it, what edits add. `still` is the row that nothing moves. */
    offset: moves.subarray(0, MovesField.steps), offsetStep: moves.subarray(MovesField.steps), still: moves.subarray(VOICE_POOL * PARAMS, MovesField.steps), smooth: rows(), smoothTo: rows(), edited: rows(),
    /** A row of sends for each voice: what goes to each bus, and what it nears. */
    sendGain: doubles(VOICE_POOL * MOST_SENDS), sendTarget: doubles(VOICE_POOL * MOST_SENDS),
    /** Its slices as its clip has them now, and as it began; what they let through of each send, and by how much that moves a frame. */
    slices: f64(), sliceCount: i32(), ownSlices: f64(), ownSliceCount: i32(), turnsBackAfter: f64(),
    sliceSend: doubles(VOICE_POOL * MOST_SENDS), sliceSendStep: doubles(VOICE_POOL * MOST_SENDS),
  } // prettier-ignore
}
export type Voices = ReturnType<typeof createVoices>
