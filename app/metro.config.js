const { join, sep } = require('node:path')

const { getDefaultConfig } = require('expo/metro-config')

const compiled = require('./compiled')
const doors = require('./doors')

const config = getDefaultConfig(__dirname)
// What was made before is taken again only where doors and the compiler's rooms are the same.
config.cacheVersion = `${doors.version()} ${compiled.version}`

/** Parts of packages that the page never uses and that would weigh more than all of ours. */
const LEFT_OUT = [
  /^(@react-native-vector-icons\/|react-native-vector-icons)/, // the elements' icon sets: signs are paths, ui/drawing/Icon
  /^@wasm-audio-decoders\/opus-ml$/, // speech enhancement: sounds stay as they were recorded
]
/** The same, named by paths within their package. */
const LEFT_OUT_WITHIN = [
  ['zod', /locales\/index\.js$/], // sentences in forty languages; ours say what happened themselves
  ['zod', /(json-schema-processors|json-schema-generator|from-json-schema)\.js$/], // schemas of another kind
  ['zod', /\.\/compile\.js$/], // checks written as code, which nothing here asks for
  ['react-native-web', /exports\/(FlatList|SectionList|VirtualizedList)$/], // lists: ours are TanStack's
  ['expo-router', /\.\/views\/Sitemap$/], // a page that lists the routes
  ['expo-router', /\.\/(layouts\/(Tabs|experimental-stack)|navigators\/createBottomTabNavigator|views\/BottomTab(Bar|View))$/], // places: ours are a bar of links
  ['expo-router', /(^|\/)toolbar(\/StackToolbar)?$|\.\/HeaderSearchBar$/], // bars over a screen: ours is the header of the kit
  ['react-native-svg', /\.\/(xml|deprecated|utils\/fetchData)$/], // pictures given as text
  ['react-native-svg', /^\.\/transform(ToRn)?$/], // turns and moves given as text: on the web the browser reads them
  ['@rneui/base', /\.\/SearchBar-(ios|android)$/], // search fields drawn as other systems draw them
]
/** Parts in the place of which a few lines of ours stand: what asks for them would not do without. */
const STAND_INS = [
  ['zod', /\/to-json-schema\.js$/, 'to-json-schema'],
  ['@rneui/base', /\/getIconType$/, 'get-icon-type'],
  ['@rneui/base', /^color$/, 'color'],
]
config.resolver.resolveRequest = (context, name, platform) => {
  if (LEFT_OUT.some((pattern) => pattern.test(name))) return { type: 'empty' }
  const isWithin = ([owner, pattern]) => pattern.test(name) && context.originModulePath.includes(`node_modules/${owner}/`)
  if (LEFT_OUT_WITHIN.some(isWithin)) return { type: 'empty' }
  const standIn = STAND_INS.find(isWithin)
  if (standIn) return { type: 'sourceFile', filePath: join(__dirname, 'left-out', `${standIn[2]}.js`) }
  return context.resolveRequest(context, name, platform)
}

/**
 * What a screen or a sheet draws with runs when it is first drawn, not when the script comes that holds it: no script holds the page up
 * by what only its later parts need. Each use asks anew, which is nothing beside drawing; all else, where loops run, is imported as ever.
 */
const isAskedAnew = (path) => path.startsWith(__dirname + sep) && path.endsWith('.tsx')
const importedAtOnce = new Proxy({}, { has: (_, path) => !isAskedAnew(path) })
config.transformer.getTransformOptions = async () => ({
  transform: { experimentalImportSupport: true, inlineRequires: { blockList: importedAtOnce } },
})

module.exports = config
