/** What hears a kit comes with the engine, when it is asked for: the first screen stands without it. */
export const hearLater = () => import('./hear-kit')
