export { laysRight } from './judge-names'
export { isUnseen, nameKinds, nameSet, TONGUES } from './name-sets'
export type { MadeFile, NameSet, SetOptions } from './name-sets'
