/** How a kit is played whose matter is worked: it comes with what plays, so that the first screen stands without it. */
export const workedMatter = () => import('./player').then(({ matter }) => matter)
