import { expose } from 'comlink'

import { work } from './journal-work'

expose(work)
