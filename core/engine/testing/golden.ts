/**
 * What each golden score renders to: SHA-256 of the left samples and then the right ones, as 32-bit floats. A line
 * changes only with a change that is meant to change sound, and that change says so.
 */
export const golden: Readonly<Record<string, string>> = {
  plain: '786321221d006c17165a2680b29e8e160027aa99164e3dbb38fdde48b288320e',
  pitched: 'ac89194fa1679656b33f34e2c723514d64fb8b5f5d2276dfb27b72c99c99c8fc',
  envelopes: '6147f8ed459377e063bfb552cb0e973ff77479f2770d884b3e6e99500bd9263d',
  filters: '1761701f494696c1656b43b3e00a460ebdc742dfdb590b2930dce2b91c983eba',
  blends: '58ff33517cbb66cfc1153c6c64cfb80845a8e04518f8ff7bd08ed95a7606a36e',
  picks: '7dfcb2437c55e8a985f1442eb12462382c0e420658d3f3ddeb068b344efa7ff3',
  chokes: 'c78663d7ae3904e844404ca63f08396cf77f8500202f0351d83095628ec7abcd',
  limits: 'f8ff9e409b92f293abbfb2fcc6d0ff9aade8610f00be741112b9993605f998b8',
  modes: '40e5d65dc9872706c1afcbe18bbf0f82544c84d8cb86a99f2cb37c13f5ea18fa',
  rays: '2592cf83ea88c77a089cbc94bf52d2c205ee91a02361cf1e069d6484da736b02',
  channels: 'a85a86d82bba5fba5c30f2c02c5e4689185b85bbc6c8ba19f92a47898db53789',
  mix: '304064556d42eef66edff12abd64e266fe0bad21c5e9b63531d4a15b11e3ccb6',
  'busy minute': '5b5eb27e4d78daf676db4111358b86ab89d8c74e82cf1713a72f532b0e49ff06',
}
