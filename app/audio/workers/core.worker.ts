import { expose } from 'comlink'

import { work } from './core-work'

expose(work)
