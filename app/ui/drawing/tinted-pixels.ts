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

/** Two layers of values 0 to 255, row by row, each in a colour of its own over a ground (`#rrggbb`). */
export function layeredPixels(
  layers: readonly [Uint8Array, Uint8Array],
  columns: number,
  ground: string,
  colors: readonly [string, string],
): OffscreenCanvas {
  const rows = layers[0].length / columns
  const [low, one, other] = [channelsOf(ground), channelsOf(colors[0]), channelsOf(colors[1])]
  const image = new ImageData(columns, rows)
  for (let i = 0; i < layers[0].length; i++) {
    const [a, b] = [layers[0][i] / 255, layers[1][i] / 255]
    for (let channel = 0; channel < 3; channel++)
      image.data[4 * i + channel] = low[channel] + a * (one[channel] - low[channel]) + b * (other[channel] - low[channel])
    image.data[4 * i + 3] = 255
  }
  const canvas = new OffscreenCanvas(columns, rows)
  canvas.getContext('2d')!.putImageData(image, 0, 0)
  return canvas
}

function channelsOf(hex: string): [number, number, number] {
  return [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)) as [number, number, number]
}
