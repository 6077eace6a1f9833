/** @jest-environment node */
import { layeredPixels, tintedPixels } from './tinted-pixels'

interface Put {
  readonly data: Uint8ClampedArray
  readonly width: number
  readonly height: number
}
let put: Put
beforeEach(() => {
  Object.assign(globalThis, {
    ImageData: class {
      readonly data
      constructor(
        readonly width: number,
        readonly height: number,
      ) {
        this.data = new Uint8ClampedArray(4 * width * height)
      }
    },
    OffscreenCanvas: class {
      getContext = () => ({ putImageData: (image: Put) => void (put = image) })
    },
  })
})
const pixels = () => Array.from({ length: put.data.length / 4 }, (_, i) => [...put.data.slice(4 * i, 4 * i + 4)])

test('values lie row by row between two colours, none of them seen through', () => {
  tintedPixels(Uint8Array.of(0, 255, 51, 102, 0, 0), 3, '#000a14', '#64c800')
  expect([put.width, put.height]).toEqual([3, 2])
  expect(pixels().slice(0, 4)).toEqual([
    [0, 10, 20, 255],
    [100, 200, 0, 255],
    [20, 48, 16, 255],
    [40, 86, 12, 255],
  ])
})

test('two layers are added over their ground, each in its colour, and no brighter than can be shown', () => {
  layeredPixels([Uint8Array.of(0, 255, 0, 255), Uint8Array.of(0, 0, 255, 255)], 2, '#101010', ['#ff1010', '#10ff10'])
  expect([put.width, put.height]).toEqual([2, 2])
  expect(pixels()).toEqual([
    [16, 16, 16, 255],
    [255, 16, 16, 255],
    [16, 255, 16, 255],
    [255, 255, 16, 255],
  ])
})
