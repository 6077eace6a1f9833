import * as React from 'react'

/**
 * While it is developed with, React notes for each element where it was made, which takes a sixth of our tests' time. It does
 * so for ten thousand elements a second only; told that these have been, it leaves it.
 */
const inside = (React as unknown as Record<string, { recentlyCreatedOwnerStacks?: number } | undefined>)[
  '__CLIENT_INTERNALS_DO_NOT_USE_OR_WARN_USERS_THEY_CANNOT_UPGRADE'
]
if (inside?.recentlyCreatedOwnerStacks !== undefined)
  Object.defineProperty(inside, 'recentlyCreatedOwnerStacks', { get: () => Infinity, set: () => undefined })
