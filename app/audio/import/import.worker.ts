import { expose } from 'comlink'

import { work } from './import-work'

expose(work)
