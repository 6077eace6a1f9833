const { getDefaultConfig } = require('expo/metro-config')

const config = getDefaultConfig(__dirname)

// Only the icon sets in use are bundled; React Native Elements names all of them.
const ICON_SETS = { 'material-icons': 'MaterialIcons', 'material-design-icons': 'MaterialCommunityIcons' }
config.resolver.resolveRequest = (context, name, platform) => {
  const match = /^@react-native-vector-icons\/(.+)$/.exec(name)
  if (match)
    return ICON_SETS[match[1]] ? context.resolveRequest(context, `@expo/vector-icons/${ICON_SETS[match[1]]}`, platform) : { type: 'empty' }
  if (name.startsWith('react-native-vector-icons/')) return { type: 'empty' }
  return context.resolveRequest(context, name, platform)
}

module.exports = config
