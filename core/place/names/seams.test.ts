import { seeded } from '../../kit/builders'
import { planByNames } from '../name-plan'
import { readNames } from './read'
import { seamsOf } from './seams'

test('what is written without separators comes apart where fronts and backs are crossed', () => {
  expect(seamsOf(['樽強', '樽弱', '板強', '板弱']).get('樽弱')).toEqual(['樽', '弱'])
  const three = ['樽', '竜骨'].flatMap((drum) =>
    ['極弱', '弱め', '強め', '極強'].flatMap((level) => ['近', '天井'].map((place) => drum + level + place)),
  )
  const pieces = seamsOf(three)
  expect(pieces.get('竜骨極弱天井')).toEqual(['竜骨', '極弱', '天井'])
  expect(pieces.get('樽強め近')).toEqual(['樽', '強め', '近'])
  expect(seamsOf(['樽', '板', '竜骨', '桶']).size).toBe(0)
  expect(seamsOf(['緑樽', '大板', '小桶', '竜骨']).size).toBe(0)
  expect(seamsOf([]).size).toBe(0)
})

test('whatever is crossed, pieces put together are the text again', () => {
  const letters = [...'樽板竜骨櫂桶弱強小中大近遠天井部屋']
  for (let seed = 1; seed <= 200; seed++) {
    const random = seeded(seed)
    const word = () => Array.from({ length: 1 + Math.floor(2 * random()) }, () => letters[Math.floor(random() * letters.length)]).join('')
    const [fronts, backs] = [0, 1].map(() => Array.from({ length: 1 + Math.floor(4 * random()) }, word))
    const texts = fronts.flatMap((front) => backs.map((back) => front + back))
    for (const [text, pieces] of seamsOf(texts)) expect(pieces.join('')).toBe(text)
  }
})

test('a set named in Japanese without any separator lies right', () => {
  const files = ['樽', '竜骨'].flatMap((drum, d) =>
    ['弱', '中', '強'].flatMap((level, l) =>
      ['近', '部屋'].flatMap((place, m) =>
        [1, 2, 3, 4].map((take) => ({
          name: `${drum}${level}${place}${take}.wav`,
          frames: 20_000 + 211 * ((take * 5 + l * 3 + d * 7) % 17),
          loudnessDb: -40 + 11 * l - 5 * m + 0.3 * ((take * 7) % 3),
        })),
      ),
    ),
  )
  const plan = planByNames(files, readNames(files))
  expect(plan.unplaced).toEqual([])
  expect(plan.pads.map(({ name }) => name).sort()).toEqual(['樽', '竜骨'])
  for (const pad of plan.pads) {
    expect([...pad.microphones].sort()).toEqual(['近', '部屋'].sort())
    expect(pad.bands.map(({ turns }) => turns.length)).toEqual([4, 4, 4])
    expect(files[pad.bands[0].turns[0].files.get('近')!].name).toContain('弱近')
  }
})
