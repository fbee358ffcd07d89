// What Expo Router uses of React Native for the web, which it asks for as a whole. What this app and other libraries name
// in their imports is taken from its own file; all the rest would go out unused.
export { default as I18nManager } from 'react-native-web/dist/exports/I18nManager';
export { default as Platform } from 'react-native-web/dist/exports/Platform';
export { default as StyleSheet } from 'react-native-web/dist/exports/StyleSheet';
export { default as Text } from 'react-native-web/dist/exports/Text';
export { default as View } from 'react-native-web/dist/exports/View';
export { default as useColorScheme } from 'react-native-web/dist/exports/useColorScheme';
