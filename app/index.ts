// Where the app begins.

import '@expo/metro-runtime';
import './src/ui/close-on-back';
// It says how scripts are fetched.
import 'expo';
import registerRootComponent from 'expo/src/launch/registerRootComponent';
import { ctx } from 'expo-router/_ctx';
import { App } from 'expo-router/build/qualified-entry';
import { deviceStore } from './src/host/document/storage';
import { firstFiles } from './src/host/first-place';

// It begins to read while scripts come.
deviceStore();

/** So long, in ms, the frame waits for its place; then it says that it is coming. */
const PATIENCE = 1000;

// A place that comes after its frame is shown 300 ms after it at the earliest: React does not swap what it shows more
// often. One that cannot be fetched is asked for again by the router, which says so. The first picture is drawn in one go:
// the router's own way to begin would let everything else that starts meanwhile go before it.
const fetched = firstFiles(window.location.pathname, ctx.keys()).map((file) => ctx(file) as Promise<unknown>);
const patience = new Promise((resolve) => setTimeout(resolve, PATIENCE));
void Promise.race([Promise.allSettled(fetched), patience]).then(() => registerRootComponent(App));
