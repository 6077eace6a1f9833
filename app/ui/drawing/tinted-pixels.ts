/** Values 0 to 255, row by row, as pixels between two colours (`#rrggbb`). */
export function tintedPixels(values: Uint8Array, columns: number, from: string, to: string): OffscreenCanvas {
  const rows = values.length / columns
  const [low, high] = [channelsOf(from), channelsOf(to)]
  const image = new ImageData(columns, rows)
  for (let i = 0; i < values.length; i++) {
    const share = values[i] / 255
    for (let channel = 0; channel < 3; channel++) image.data[4 * i + channel] = low[channel] + share * (high[channel] - low[channel])
    image.data[4 * i + 3] = 255
  }
  const canvas = new OffscreenCanvas(columns, rows)
  canvas.getContext('2d')!.putImageData(image, 0, 0)
  return canvas
}

function channelsOf(hex: string): [number, number, number] {
  return [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)) as [number, number, number]
}
