/**
 * What each golden score renders to: SHA-256 of the left samples and then the right ones, as 32-bit floats. A line
 * changes only with a change that is meant to change sound, and that change says so.
 */
export const golden: Readonly<Record<string, string>> = {
  plain: '786321221d006c17165a2680b29e8e160027aa99164e3dbb38fdde48b288320e',
  pitched: 'dbed99263deb2fe9c1d7e8657934e5e5110e6e448fc2f8dc07e9a11200064e68',
  envelopes: '80da4403a5ec63bb5e01df49bc6f9b79ca833d1160469bf49c996bf98c2eae29',
  filters: 'bbc8168bb05cf1fabe26bf55d1495750be928dcd088ea33a73d6158a492e3e78',
  blends: '58ff33517cbb66cfc1153c6c64cfb80845a8e04518f8ff7bd08ed95a7606a36e',
  picks: '776d94f342c8460d99984172e125f60874cb0b48f4660a26772ca3da2a6282ff',
  chokes: 'c78663d7ae3904e844404ca63f08396cf77f8500202f0351d83095628ec7abcd',
  limits: 'f8ff9e409b92f293abbfb2fcc6d0ff9aade8610f00be741112b9993605f998b8',
  modes: '4b75c5a58aaa98fcee49ca9fb6db456613513e708d0dcca65fc2dac4094cbb69',
  rays: 'b462210013012472e78b92e3d062c5f9d4c7f6af4ede5ac36022e75738042f01',
  channels: '83891269db6d8e516ff0a5907fc977bd8511ebe4fcc4dba5a911f32530221433',
  mix: '304064556d42eef66edff12abd64e266fe0bad21c5e9b63531d4a15b11e3ccb6',
  'busy minute': '1fa85187726086f3facc0e140d7215d1d250e9cab66c569af19046ec1e0ce4b4',
}
