// What this app uses of Expo Router. Its index would bring stacks, tabs, previews and maps of a site along.
export { BaseExpoRouterLink as Link } from 'expo-router/build/link/BaseExpoRouterLink';
export { Redirect } from 'expo-router/build/link/Redirect';
export { Slot } from 'expo-router/build/views/Navigator';
export { router } from 'expo-router/build/imperative-api';
export { useLocalSearchParams } from 'expo-router/build/hooks/useLocalSearchParams';
export { usePathname } from 'expo-router/build/hooks/usePathname';
export { useRouter } from 'expo-router/build/hooks/useRouter';
