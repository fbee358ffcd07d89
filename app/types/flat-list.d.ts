// One part of React Native for the web: the whole would go out with it (app/metro/react-native.js).
declare module 'react-native-web/dist/exports/FlatList' {
  export { FlatList as default } from 'react-native';
}
