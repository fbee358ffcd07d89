// Every place that has an address.

export const PLACES = [
  '/songs',
  '/songs/paper-lighthouse',
  '/looks',
  '/looks/new',
  '/looks/kits',
  '/rig',
  '/rig/type/northlamp-heron',
  '/gig',
  '/gig/pedals',
  '/gig/large',
  '/gig/foot',
  '/gig/log',
  '/gig/preflight',
  '/gig/flashes',
  '/connect',
  '/connect/first',
  '/connect/decks',
  '/connect/universe/1',
  '/shows',
  '/settings',
] as const;
