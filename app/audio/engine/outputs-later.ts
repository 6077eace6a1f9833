/** By which outputs the device sounds: loaded when sound is, or when it is looked at, so that the first screen stands without it. */
export const outputsLater = () => import('./outputs')
export type Outputs = Awaited<ReturnType<typeof outputsLater>>
