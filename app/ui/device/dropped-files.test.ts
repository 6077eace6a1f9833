import { folderOf, isWanted } from './dropped-files'

const file = (name: string, paths: { relativePath?: string; webkitRelativePath?: string } = {}) =>
  Object.defineProperties(new File([], name), Object.fromEntries(Object.entries(paths).map(([key, value]) => [key, { value }])))

test.each([
  [{}, undefined],
  [{ relativePath: './oar.wav' }, undefined],
  [{ relativePath: '/yard/oar.wav' }, 'yard'],
  [{ relativePath: './yard/capstan/oar.wav' }, 'capstan'],
  [{ webkitRelativePath: 'yard/oar.wav' }, 'yard'],
])('a file at %j came with the folder %s', (paths, folder) => {
  expect(folderOf(file('oar.wav', paths))).toBe(folder)
})

test('of a folder only audio is wanted; what is dropped by itself is always tried', () => {
  expect(isWanted(file('notes.txt', { relativePath: '/yard/notes.txt' }))).toBe(false)
  expect(isWanted(file('.hidden.wav', { relativePath: '/yard/.hidden.wav' }))).toBe(false)
  expect(isWanted(file('OAR.WAV', { relativePath: '/yard/OAR.WAV' }))).toBe(true)
  expect(isWanted(file('notes.txt'))).toBe(true)
})
