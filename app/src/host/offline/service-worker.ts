// Keeps the app on this device, so that it opens without its server. What the conductor answers is never kept.

import { clientsClaim } from 'workbox-core';
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute, type PrecacheEntry } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';

/** What to keep; the build writes it. */
declare const FILES: PrecacheEntry[];

/** How long the server may take to answer before the kept page opens instead, in ms. */
const PATIENCE = 1500;

// The page of the server first: it fits the server. A new version is therefore used at the next start, and the one that
// is running stays as it is. A new worker waits until all pages of the old one are closed.
const page = async ({ request }: { readonly request: Request }): Promise<Response> => {
  try {
    return await fetch(request.url, { credentials: 'same-origin', signal: AbortSignal.timeout(PATIENCE) });
  } catch {
    return (await matchPrecache('/index.html')) ?? Response.error();
  }
};
registerRoute(new NavigationRoute(page, { denylist: [/^\/api\//] }));
precacheAndRoute(FILES);
cleanupOutdatedCaches();
// The page of a first visit is served by it at once; later ones have been closed by then.
clientsClaim();
