/**
 * What each golden score renders to: SHA-256 of the left samples and then the right ones, as 32-bit floats. A line
 * changes only with a change that is meant to change sound, and that change says so.
 */
export const golden: Readonly<Record<string, string>> = {
  plain: '786321221d006c17165a2680b29e8e160027aa99164e3dbb38fdde48b288320e',
  pitched: 'c1777b1689f592c98fa4780e4d252183c7f172462ab500bddf642fee2e75a836',
  envelopes: 'd53730d1ccb48ff571e2ff7e655852ff37de77aabeba2a3d4e8887b5820c5be2',
  filters: 'bb540b3d675b3c72522be92e1936a327cf14ad51ca2cbc821e9151bb7c65d58c',
  'filter kinds': 'd1af0c6af434ec2ad29f7aa47242d55cebdbc1983ab8f7a7e9ffe6e67e0f2527',
  stages: 'af9b458dd5ae5fc8756bb4d0911c343b5b714c27e81154d059ef05c785ac4703',
  drive: '10c124c8292926d93bd8e9a9e6805cad048c59c99775dfe9621559e2c829ee23',
  blends: '58ff33517cbb66cfc1153c6c64cfb80845a8e04518f8ff7bd08ed95a7606a36e',
  picks: '346579259bbc3472a71ae553814437bee61c3725a039277a6685b7bb8aa537cb',
  chokes: 'c78663d7ae3904e844404ca63f08396cf77f8500202f0351d83095628ec7abcd',
  limits: 'f8ff9e409b92f293abbfb2fcc6d0ff9aade8610f00be741112b9993605f998b8',
  modes: 'd47a6a1b93b8602ec17d4a2c548cd58385175f719c319ea00f7e80673850f303',
  rays: '449627d5b37569805433e47492afc3d281d990ef4389c6a06e4716d187c7bbff',
  channels: '3130022b4cd290ef91b4c161b481856456dc2e336aecda32ad420c3a67dcb5f1',
  mix: '304064556d42eef66edff12abd64e266fe0bad21c5e9b63531d4a15b11e3ccb6',
  'busy minute': '6e147d2a512d6c8acb345ed401e97921d339867350a83955e4a28fd79f95cfbc',
}
