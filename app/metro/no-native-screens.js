// Stands in for what Expo Router asks of native screens, which a web page has none of.
exports.initScreensFeatureFlags = () => {};
exports.createNativeStackNavigator = () => ({ Navigator: () => null });
