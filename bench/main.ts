import { figuresOfAlike } from './alike'
import { figuresOfArriving } from './arrive'
import { figuresOfBigKit } from './big-kit'
import { figuresOfBlocks } from './blocks'
import { figuresOfCoded } from './coded'
import { figuresOfCounted } from './counted-names'
import { figuresOfCut } from './cut'
import { figuresOfDecoders } from './decoders'
import { figuresOfDocument } from './document'
import { figuresOfEngine } from './engine'
import { figuresOfFamilies } from './families'
import type { Figure } from './figure'
import { figuresOfGroove } from './groove'
import { figuresOfImport } from './import'
import { figuresOfKernel } from './kernel'
import { figuresOfKills } from './kills'
import { figuresOfLatency } from './latency'
import { figuresOfLibrary } from './library'
import { figuresOfLight } from './light'
import { figuresOfMatter } from './matter'
import { figuresOfMix } from './mix'
import { figuresOfNames } from './names'
import { figuresOfOnsets } from './onsets'
import { figuresOfReading } from './reading'
import { figuresOfRecording } from './recording'
import { figuresOfRhythm } from './rhythm'
import { figuresOfVoices } from './voices'
import { figuresOfWaterLine } from './water-line'
import { figuresOfWave } from './wave'

type Figures = Record<string, Figure>

/** All that is measured, by section; words on the command line choose some. */
const sections: Record<string, () => Figures | Promise<Figures>> = {
  onsets: figuresOfOnsets,
  cut: figuresOfCut,
  water: figuresOfWaterLine,
  coded: figuresOfCoded,
  alike: figuresOfAlike,
  families: figuresOfFamilies,
  names: figuresOfNames,
  counted: figuresOfCounted,
  latency: figuresOfLatency,
  voices: figuresOfVoices,
  kernel: figuresOfKernel,
  blocks: figuresOfBlocks,
  reading: figuresOfReading,
  decoders: figuresOfDecoders,
  document: figuresOfDocument,
  engine: figuresOfEngine,
  arrive: figuresOfArriving,
  kit: figuresOfBigKit,
  library: figuresOfLibrary,
  light: figuresOfLight,
  wave: figuresOfWave,
  import: figuresOfImport,
  kills: figuresOfKills,
  recording: figuresOfRecording,
  rhythm: figuresOfRhythm,
  groove: figuresOfGroove,
  mix: figuresOfMix,
  matter: figuresOfMatter,
}

const asked = process.argv.slice(2)
const unknown = asked.filter((name) => !(name in sections))
if (unknown.length > 0) {
  console.error(`There is no section ${unknown.join(', ')}. There are: ${Object.keys(sections).join(', ')}.`)
  process.exit(2)
}

const figures: Figures = {}
for (const [name, measure] of Object.entries(sections))
  if (asked.length === 0 || asked.includes(name)) {
    console.error(`measuring ${name} ...`)
    Object.assign(figures, await measure())
  }

for (const [name, { value, unit, peer, spread }] of Object.entries(figures)) {
  const range = spread ? ` (${spread[0].toFixed(3)} to ${spread[1].toFixed(3)})` : ''
  console.error(`${name.padEnd(44)} ${value.toFixed(3).padStart(10)} ${unit}${range}${peer ? `, against ${peer}` : ''}`)
}
console.log(JSON.stringify(figures, null, 1))
