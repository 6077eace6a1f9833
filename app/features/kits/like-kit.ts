export { kitLike } from '@heliaster/core/place'
