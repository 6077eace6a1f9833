import { expose } from 'comlink'

import { work } from './ship-work'

expose(work)
