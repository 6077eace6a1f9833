import { configure } from '@testing-library/react'

import './no-stacks'
import './quick-labels'
import './quick-styles'

// No test is a stopwatch: what is waited for comes when a busy machine has done it.
configure({ asyncUtilTimeout: 20000 })
