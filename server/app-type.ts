/** All that the web application takes from the server: types for its client. */
export type { AppType } from './app'
