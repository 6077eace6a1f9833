import { canChooseFolders, chooseFiles, chooseFolder, isAudioName, saveFile } from './choose-files'

const files = (...names: string[]) => names.map((name) => new File(['x'], name))
/** The question that was asked last, and how it is answered. */
const input = () => document.querySelector<HTMLInputElement>('input[type=file]')!
const answer = (given: File[]) => {
  Object.defineProperty(input(), 'files', { value: given })
  input().dispatchEvent(new Event('change'))
}
const agent = (words: string) => jest.spyOn(navigator, 'userAgent', 'get').mockReturnValue(words)

beforeEach(() => {
  HTMLInputElement.prototype.click = () => undefined
})
afterEach(() => jest.restoreAllMocks())

test('files are asked for by their kinds, one or several, and what asked is gone afterwards', async () => {
  const chosen = chooseFiles('.wav,audio/*', true)
  expect([input().accept, input().multiple]).toEqual(['.wav,audio/*', true])
  const given = files('a.wav', 'b.wav')
  answer(given)
  expect(await chosen).toEqual(given)
  expect(input()).toBeNull()
  const one = chooseFiles('.zip', false)
  expect(input().multiple).toBe(false)
  input().dispatchEvent(new Event('cancel'))
  expect(await one).toEqual([])
  expect(input()).toBeNull()
})

test('of a folder only sounds are taken, whatever the case of their ending, and nothing that is hidden', async () => {
  const chosen = chooseFolder()
  expect(input().webkitdirectory).toBe(true)
  answer(files('a.wav', 'b.FLAC', '.c.wav', 'd.txt', 'e.aif', 'f.wavx', 'g.opus', 'wav'))
  expect((await chosen).map(({ name }) => name)).toEqual(['a.wav', 'b.FLAC', 'e.aif', 'g.opus'])
  expect(['a.aiff', 'a.aifc', 'a.wave', 'a.mp3', 'a.ogg', 'a.oga'].every((name) => isAudioName({ name }))).toBe(true)
})

test('folders can be chosen where the browser knows them, and not on phones', () => {
  agent('A desk')
  expect(canChooseFolders()).toBe('webkitdirectory' in HTMLInputElement.prototype)
  Object.defineProperty(HTMLInputElement.prototype, 'webkitdirectory', { configurable: true, value: false, writable: true })
  expect(canChooseFolders()).toBe(true)
  for (const phone of ['Android', 'iPhone', 'iPad']) {
    agent(`Mozilla/5.0 (${phone})`)
    expect(canChooseFolders()).toBe(false)
  }
  Reflect.deleteProperty(HTMLInputElement.prototype, 'webkitdirectory')
})

test('a file is given under its name, and its address is let go of a minute later', () => {
  jest.useFakeTimers()
  const [made, gone] = [jest.fn(() => 'blob:1'), jest.fn()]
  Object.assign(URL, { createObjectURL: made, revokeObjectURL: gone })
  const clicked: { href: string; download: string }[] = []
  jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
    clicked.push({ href: this.href, download: this.download })
  })
  saveFile('Low Tide.zip', 'bytes', 'application/zip')
  expect((made.mock.calls as unknown as [Blob][])[0]![0].type).toBe('application/zip')
  expect(clicked).toEqual([{ href: 'blob:1', download: 'Low Tide.zip' }])
  expect(gone).not.toHaveBeenCalled()
  jest.advanceTimersByTime(61_000)
  expect(gone).toHaveBeenCalledWith('blob:1')
  jest.useRealTimers()
})
