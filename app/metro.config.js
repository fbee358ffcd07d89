const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// pdf-lib asks tslib for its parts in a way that only the ES module answers.
const resolve = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) =>
  (resolve ?? context.resolveRequest)(context, name === 'tslib' ? 'tslib/tslib.es6.js' : name, platform);

module.exports = config;
