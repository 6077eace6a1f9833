import { expose } from 'comlink'

import { localDb } from '../../sync/local-db'
import { work } from './core-work'

expose(work)
void localDb().catch(() => undefined) // the first file that is struck does not wait for it; what cannot be opened is said then
