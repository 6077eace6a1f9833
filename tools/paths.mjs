import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = join(dirname(fileURLToPath(import.meta.url)), '..')
export const dataFolder = process.env.HELIASTER_DATA ?? join(root, '.data')
export const webFolder = join(root, 'app/dist')

/** Something a person can mend; its message is the one line they see. */
export class Fault extends Error {}
