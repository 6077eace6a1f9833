/** What makes a kit like another one comes when it is asked for: the first screen stands without it. */
export const likeLater = () => import('./like-kit')
