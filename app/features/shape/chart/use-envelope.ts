import type { Envelope, OwnSettings } from '@heliaster/core/kit'
import { useState } from 'react'

import type { KitGesture } from '../../../kit-view/use-kit'
import { FIRST_REACH_CENTS } from '../controls/FilterControls'
import type { ShapeTarget } from '../whom/target'
import { addPoint, movePoint, newEnvelope } from '@heliaster/core/shaping'
import type { Layer } from '@heliaster/core/shaping'
import type { DrawnHit } from './use-drawn-hit'

export const LAYERS = [
  { value: 'level', text: 'Level', begin: 'Shape the level' },
  { value: 'pitch', text: 'Pitch', begin: 'Shape the pitch' },
  { value: 'filter1', text: 'Filter', begin: 'Shape the filter' },
  { value: 'filter2', text: 'Filter 2', begin: 'Shape the second filter' },
] as const

export type EnvelopeWork = ReturnType<typeof useEnvelope>

/** The envelope that is worked on: which one, its chosen point, and what can be done to it. */
export function useEnvelope(target: ShapeTarget, drawn: DrawnHit | undefined, gesture: KitGesture) {
  const [chosenLayer, setLayer] = useState<Layer>('level')
  const [point, setPoint] = useState<number>()
  const { values, choices, envelopes } = target.settings
  const layers = LAYERS.filter(({ value }) => (value !== 'filter1' && value !== 'filter2') || choices[`${value}Kind`] !== 'off')
  const layer = layers.some(({ value }) => value === chosenLayer) ? chosenLayer : 'level'
  const envelope = envelopes[layer]
  const set = (own: OwnSettings) => gesture.set(target.edits(own))
  const slide = (changed: Envelope) => set({ envelopes: { [layer]: changed } })
  const put = (changed: Envelope, chosenPoint?: number) => {
    slide(changed)
    gesture.end()
    setPoint(chosenPoint)
  }
  return {
    layer,
    layers,
    envelope,
    point,
    setPoint,
    slide,
    put,
    end: gesture.end,
    setLayer(next: Layer) {
      setLayer(next)
      setPoint(undefined)
    },
    /** A new envelope spans its hit. */
    begin() {
      if ((layer === 'filter1' || layer === 'filter2') && values[`${layer}EnvelopeCents`] === 0)
        set({ values: { [`${layer}EnvelopeCents`]: FIRST_REACH_CENTS } })
      put(newEnvelope(layer, drawn?.soundSeconds ?? 0.3), 1)
    },
    /** What the chart says of it and tells about it. */
    chart: {
      layer,
      point,
      onPoint: setPoint,
      onMove: (index: number, seconds: number, value: number) => slide(movePoint(envelope, index, seconds, value, layer)),
      onMoved: gesture.end,
      onAdd(seconds: number, value: number) {
        const [changed, index] = addPoint(envelope, seconds, value, layer)
        put(changed, index)
      },
    },
  }
}
