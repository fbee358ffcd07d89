// Where the app begins.

import './src/ui/close-on-back';
import 'expo-router/entry';
