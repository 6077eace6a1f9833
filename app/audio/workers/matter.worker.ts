import { expose } from 'comlink'

import { work } from './matter-work'

expose(work)
