import { figuresOfLatency } from './latency'
import { figuresOfOnsets } from './onsets'
import type { Figure } from './figure'
import { figuresOfVoices } from './voices'

const figures: Record<string, Figure> = { ...figuresOfOnsets(), ...(await figuresOfLatency()), ...(await figuresOfVoices()) }

for (const [name, { value, unit, peer, spread }] of Object.entries(figures)) {
  const range = spread ? ` (${spread[0].toFixed(3)} to ${spread[1].toFixed(3)})` : ''
  console.error(`${name.padEnd(44)} ${value.toFixed(3).padStart(10)} ${unit}${range}${peer ? `, against ${peer}` : ''}`)
}
console.log(JSON.stringify(figures, null, 1))
