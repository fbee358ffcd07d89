// What this app and its libraries use of React Native for the web. Metro bundles all of a package that is imported as a
// whole, and the libraries import React Native so: a third of it would go out unused.
export { default as BackHandler } from 'react-native-web/dist/exports/BackHandler';
export { default as Dimensions } from 'react-native-web/dist/exports/Dimensions';
export { default as I18nManager } from 'react-native-web/dist/exports/I18nManager';
export { default as Image } from 'react-native-web/dist/exports/Image';
export { default as NativeEventEmitter } from 'react-native-web/dist/exports/NativeEventEmitter';
export { default as NativeModules } from 'react-native-web/dist/exports/NativeModules';
export { default as PixelRatio } from 'react-native-web/dist/exports/PixelRatio';
export { default as Platform } from 'react-native-web/dist/exports/Platform';
export { default as Pressable } from 'react-native-web/dist/exports/Pressable';
export { default as ScrollView } from 'react-native-web/dist/exports/ScrollView';
export { default as StyleSheet } from 'react-native-web/dist/exports/StyleSheet';
export { default as Text } from 'react-native-web/dist/exports/Text';
export { default as TextInput } from 'react-native-web/dist/exports/TextInput';
export { default as Touchable } from 'react-native-web/dist/exports/Touchable';
export { default as UIManager } from 'react-native-web/dist/exports/UIManager';
export { default as View } from 'react-native-web/dist/exports/View';
export { default as unstable_createElement } from 'react-native-web/dist/exports/createElement';
export { default as useColorScheme } from 'react-native-web/dist/exports/useColorScheme';
export { default as useWindowDimensions } from 'react-native-web/dist/exports/useWindowDimensions';
