const { getDefaultConfig } = require('expo/metro-config');
const path = require('path');

const config = getDefaultConfig(__dirname);

// Metro bundles every file that is imported anywhere, used or not. Nothing here calls these. When a library is renewed,
// the browser specs tell whether that still holds: most would fail as the first page opens.
const LEFT_OUT = [
  // Messages of the schema library in other languages, and its way back from JSON Schema.
  /[\\/]zod[\\/]v4[\\/]locales[\\/]index\.c?js$/,
  /[\\/]zod[\\/]v4[\\/]classic[\\/]from-json-schema\.c?js$/,
  /[\\/]zod[\\/]v4[\\/]core[\\/]compile\.c?js$/,
  // SVG read from text: Hovlix draws its own.
  /[\\/]react-native-svg[\\/]lib[\\/]module[\\/](xml|deprecated)\.js$/,
  // What Expo Router has for stacks, tabs and previews of phone apps; Hovlix has one slot, links and a router.
  /[\\/]expo-router[\\/]build[\\/](stack|layouts[\\/](Tabs|TabsClient|Stack|stack-utils[\\/]index|experimental-stack[\\/]index))(\.web)?\.js$/,
  /[\\/]expo-router[\\/]build[\\/](standard-navigation|native-tabs)[\\/]/,
  /[\\/]expo-router[\\/]build[\\/]react-navigation[\\/](elements|bottom-tabs|native-stack)[\\/]/,
  /[\\/]expo-router[\\/]build[\\/]views[\\/](Sitemap|Toast)\.js$/,
];

const resolve = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) => {
  const found = (resolve ?? context.resolveRequest)(
    context,
    // pdf-lib asks tslib for its parts in a way that only the ES module answers.
    name === 'tslib' ? 'tslib/tslib.es6.js' : name,
    platform,
  );
  const at = found.filePath ?? '';
  const instead = (file) => ({ type: 'sourceFile', filePath: path.join(__dirname, 'metro', file) });
  if (LEFT_OUT.some((one) => one.test(at))) return instead('nothing.js');
  if (/[\\/](screensFeatureFlags|createNativeStackNavigator)\.js$/.test(at)) return instead('no-native-screens.js');
  if (/[\\/]culori[\\/]src[\\/]index-fn\.js$/.test(at)) return instead('colour-spaces.js');
  return /[\\/]react-native-web[\\/]dist[\\/](cjs[\\/])?index\.js$/.test(at) ? instead('react-native.js') : found;
};

// Scripts that need another one beside them; `scripts/split-shared.mjs` makes those.
config.transformer.asyncRequireModulePath = path.join(__dirname, 'metro/load-place.js');

// What a place does not use at its start is not run at its start: a quarter less until the page can be used.
config.transformer.getTransformOptions = async () => ({ transform: { inlineRequires: true } });

module.exports = config;
