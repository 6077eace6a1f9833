/** The player, once it is asked for: the first screen stands without it. */
export const playerLater = () => import('./player')
