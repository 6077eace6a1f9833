import { movedParameters } from '@heliaster/core/kit'

import { parameterChoices } from './parameter-words'

test('everything that can be moved has a word of its own and a group that says something', () => {
  const choices = parameterChoices(movedParameters)
  expect(choices.map(({ value }) => value).sort()).toEqual([...movedParameters].sort())
  expect(new Set(choices.map(({ text }) => text)).size).toBe(choices.length)
  expect(choices.filter(({ text, value }) => text === (value as string))).toEqual([])
  expect(choices.filter(({ group }) => group === 'Others')).toEqual([])
})
