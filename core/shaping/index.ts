export * from './envelope-edits'
export * from './filter-response'
export * from './recipe'
export * from './wander'
