import type { Envelope, OwnSettings } from '@heliaster/core/kit'
import { addPoint, copyPoints, MOST_POINTS, newEnvelope, pastePoints, removePoints } from '@heliaster/core/shaping'
import type { Chosen, CopiedPoints, EnvelopeStart, Layer } from '@heliaster/core/shaping'
import { useState } from 'react'
import { useStore } from 'zustand'
import { createStore } from 'zustand/vanilla'

import type { KitGesture } from '../../../kit-view/use-kit'
import { FIRST_REACH_CENTS } from '../controls/FilterControls'
import type { ShapeTarget } from '../whom/target'
import { chartView } from './chart-view'
import type { DrawnHit } from './use-drawn-hit'

export const LAYERS = [
  { value: 'level', text: 'Level', begin: 'Shape the level' },
  { value: 'pitch', text: 'Pitch', begin: 'Shape the pitch' },
  { value: 'filter1', text: 'Filter', begin: 'Shape the filter' },
  { value: 'filter2', text: 'Filter 2', begin: 'Shape the second filter' },
] as const

/** What was copied last, from whichever pad. */
export const copiedPoints = createStore<{ copied?: CopiedPoints }>(() => ({}))

const FULL = `An envelope has ${MOST_POINTS} points at most. Take some away first.`
const USUAL_SECONDS = 0.3

/** What the chart and its keys need of the envelope that is worked on. */
export interface ChartWork {
  readonly layer: Layer
  readonly envelope: Envelope
  readonly chosen: Chosen
  onChoose(chosen: Chosen): void
  onSlide(envelope: Envelope): void
  onDone(): void
  onAdd(seconds: number, value: number): void
  onRemove(chosen: Chosen): void
  onCopy(): void
  onPaste(): void
}
export type EnvelopeWork = ReturnType<typeof useEnvelope>

/** The envelope that is worked on: which one, its chosen points, and what can be done to it. */
export function useEnvelope(target: ShapeTarget, drawn: DrawnHit | undefined, gesture: KitGesture) {
  const chosenLayer = useStore(chartView, (state) => state.layer)
  const copied = useStore(copiedPoints, (state) => state.copied)
  const [wanted, choosePoints] = useState<Chosen>([])
  const [words, setWords] = useState<string>()
  const { values, choices, envelopes } = target.settings
  const layers = LAYERS.filter(({ value }) => (value !== 'filter1' && value !== 'filter2') || choices[`${value}Kind`] !== 'off')
  const layer = layers.some(({ value }) => value === chosenLayer) ? chosenLayer : 'level'
  const envelope = envelopes[layer]
  const chosen = wanted.filter((place) => place < envelope.points.length)
  const hitSeconds = drawn?.soundSeconds ?? USUAL_SECONDS
  const set = (own: OwnSettings) => gesture.set(target.edits(own))
  const choose = (next: Chosen) => {
    choosePoints(next)
    setWords(undefined)
  }
  const slide = (changed: Envelope) => set({ envelopes: { [layer]: changed } })
  const put = (changed: Envelope, next: Chosen = chosen, said?: string) => {
    slide(changed)
    gesture.end()
    choosePoints(next)
    setWords(said)
  }
  /** A filter that does not reach anywhere yet would let its envelope move nothing. */
  const reach = () => {
    if ((layer === 'filter1' || layer === 'filter2') && values[`${layer}EnvelopeCents`] === 0)
      return { values: { [`${layer}EnvelopeCents`]: FIRST_REACH_CENTS } }
    return {}
  }
  const beginAs = (made: Envelope, next: Chosen, said?: string) => {
    set({ ...reach(), envelopes: { [layer]: made } })
    gesture.end()
    choosePoints(next)
    setWords(said)
  }
  const chart: ChartWork = {
    layer,
    envelope,
    chosen,
    onChoose: choose,
    onSlide: slide,
    onDone: gesture.end,
    onAdd(seconds, value) {
      if (envelope.points.length >= MOST_POINTS) return setWords(FULL)
      const [changed, index] = addPoint(envelope, seconds, value, layer)
      put(changed, [index])
    },
    onRemove: (going) => put(removePoints(envelope, going), []),
    onCopy() {
      const made = copyPoints(envelope, chosen, layer)
      copiedPoints.setState({ copied: made })
      setWords(made.isWhole ? 'All of it is copied.' : `${made.envelope.points.length} points are copied.`)
    },
    onPaste() {
      if (!copied) return
      const from = chosen.length > 0 ? envelope.points[Math.min(...chosen)]!.seconds : (envelope.points[envelope.points.length - 1]?.seconds ?? 0) + 0.01
      const pasted = pastePoints(envelope, copied, from, layer)
      if (pasted) beginAs(pasted, [])
      else setWords(FULL)
    }, // prettier-ignore
  }
  return {
    layer,
    layers,
    envelope,
    chosen,
    choose,
    slide,
    put,
    words,
    copied,
    hitSeconds,
    end: gesture.end,
    setLayer(next: Layer) {
      chartView.setState({ layer: next })
      choose([])
    },
    /** A new envelope spans its hit, or is a start made for it. */
    begin(start?: EnvelopeStart) {
      beginAs(start?.make(hitSeconds) ?? newEnvelope(layer, hitSeconds), start ? [] : [1])
    },
    /** An envelope measured elsewhere takes the place of this one. */
    lay: (made: Envelope, said: string) => beginAs(made, [], said),
    remove: () => put({ points: [] }, []),
    chart,
  }
}
