// Keeps the app on this device, once it has nothing else to do.

/** How long the page has for itself after its start before the rest of the app is fetched, in ms. */
const SETTLED = 4000;

/**
 * A built app is kept where browsers allow it: over HTTPS, or on the computer that Hovlix runs on. A phone on the stage's
 * own network has no such right: it fetches ahead what other places need, so that nothing is missing when the network is.
 */
export function keepApp(): void {
  setTimeout(() => {
    if (navigator.serviceWorker && document.querySelector('meta[name="service-worker"]'))
      // Without it all goes on as before.
      return void navigator.serviceWorker.register('/sw.js').catch(() => undefined);
    for (const chunk of document.querySelectorAll<HTMLLinkElement>('link[data-later]')) chunk.rel = 'prefetch';
  }, SETTLED);
}
