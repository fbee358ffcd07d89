const { getDefaultConfig } = require('expo/metro-config');
const { createHash } = require('crypto');
const fs = require('fs');
const os = require('os');
const path = require('path');

const config = getDefaultConfig(__dirname);

// Metro bundles every file that is imported anywhere, used or not. Nothing here calls these. When a library is renewed,
// the browser specs tell whether that still holds: most would fail as the first page opens.
const LEFT_OUT = [
  // Messages of the schema library in other languages, and its way back from JSON Schema.
  /[\\/]zod[\\/]v4[\\/]locales[\\/]index\.c?js$/,
  /[\\/]zod[\\/]v4[\\/]classic[\\/]from-json-schema\.c?js$/,
  /[\\/]zod[\\/]v4[\\/]core[\\/]compile\.c?js$/,
  // SVG read from text: Hovlix draws its own. Presses of its shapes, which take none here, and turns given as lists.
  /[\\/]react-native-svg[\\/]lib[\\/]module[\\/](xml|deprecated|lib[\\/](SvgTouchableMixin|extract[\\/]extractTransform))\.js$/,
  // Paper has two fonts, which every reader of PDF has: of the others it needs no measures. It has no photographs.
  /[\\/]@pdf-lib[\\/]standard-fonts[\\/]es[\\/](Courier|Times|Symbol|ZapfDingbats|Helvetica-(Bold)?Oblique).*\.json$/,
  /[\\/]@pdf-lib[\\/]upng[\\/]UPNG\.js$/,
  // What Expo Router has for stacks, tabs and previews of phone apps; Hovlix has one slot, links and a router.
  /[\\/]expo-router[\\/]build[\\/](stack|layouts[\\/](Tabs|TabsClient|Stack|stack-utils[\\/]index|experimental-stack[\\/]index))(\.web)?\.js$/,
  /[\\/]expo-router[\\/]build[\\/](standard-navigation|native-tabs)[\\/]/,
  /[\\/]expo-router[\\/]build[\\/]react-navigation[\\/](elements|bottom-tabs|native-stack)[\\/]/,
  /[\\/]expo-router[\\/]build[\\/]views[\\/](Sitemap|Toast|RootUnmatched|Unmatched)\.js$/,
  /[\\/]expo-router[\\/]build[\\/]react-navigation[\\/]native[\\/](NavigationContainer|createMemoryHistory|createStaticNavigation|Link|ServerContainer|useLinking|useLinkBuilder|useLinkProps|useLinkTo|useRoutePath|useScrollToTop)\.js$/,
  /[\\/]expo-router[\\/]build[\\/]react-navigation[\\/]core[\\/](StaticNavigation|getPathFromState|getStateFromPath|usePreventRemove)\.js$/,
  /[\\/]expo-router[\\/]build[\\/]link[\\/](elements|ExpoLink|LinkWithPreview|preview[\\/]HrefPreview)\.js$/,
  /[\\/]expo-router[\\/]build[\\/]react-navigation[\\/]routers[\\/](DrawerRouter|TabRouter)\.js$/,
];

const BUILT = require('./metro/libraries.json');

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
  // The smaller libraries of a build for others: `scripts/build-libraries.mjs`.
  const built = path.join(__dirname, 'metro/built', `${name.replaceAll('/', '-')}.js`);
  if (process.env.NODE_ENV === 'production' && BUILT.includes(name)) return { type: 'sourceFile', filePath: built };
  if (['expo-constants', 'expo-router'].includes(name)) return instead(`${name}.js`);
  if (LEFT_OUT.some((one) => one.test(at))) return instead('nothing.js');
  if (/[\\/]expo-router[\\/]build[\\/]head[\\/]index\.js$/.test(at)) return instead('no-head.js');
  if (/[\\/](screensFeatureFlags|createNativeStackNavigator)\.js$/.test(at)) return instead('no-native-screens.js');
  // It would show nothing at all while a place comes.
  if (/[\\/]expo-router[\\/]build[\\/]views[\\/]SuspenseFallback\.js$/.test(at))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'src/ui/Waiting.tsx') };
  if (/[\\/]culori[\\/]src[\\/]index-fn\.js$/.test(at)) return instead('colour-spaces.js');
  return /[\\/]react-native-web[\\/]dist[\\/](cjs[\\/])?index\.js$/.test(at) ? instead('react-native.js') : found;
};

// Scripts that need another one beside them; `scripts/split-shared.mjs` makes those.
config.transformer.asyncRequireModulePath = path.join(__dirname, 'metro/load-place.js');

config.transformer.minifierPath = path.join(__dirname, 'metro/minify.js');

// Of two processors Metro would use one.
config.maxWorkers = Math.max(config.maxWorkers, Math.min(2, os.availableParallelism()));

// What a place does not use at its start is not run at its start: a quarter less until the page can be used.
config.transformer.getTransformOptions = async () => ({ transform: { inlineRequires: true } });

// A file is transformed anew when it changes, and with `straight-imports.js` also when another file exports another name.
const exported = createHash('sha256').update(fs.readFileSync(path.join(__dirname, 'metro/straight-imports.js')));
for (const folder of [path.join(__dirname, 'src'), path.join(__dirname, '../core/src')])
  for (const at of fs.readdirSync(folder, { recursive: true, encoding: 'utf8' }).sort())
    if (/\.tsx?$/.test(at)) {
      const text = fs.readFileSync(path.join(folder, at), 'utf8');
      const names = text.match(/^export (\{[^}]*\}|\*|[\w ]+)( from .*)?/gm) ?? [];
      exported.update(JSON.stringify([at, names]));
    }
config.cacheVersion = exported.digest('hex');

module.exports = config;
