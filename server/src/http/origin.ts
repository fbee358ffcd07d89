// Only pages that this server itself served may talk to it, and only under names that are its own.

const LOCAL = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/**
 * True when the Host is this computer and the Origin, where there is one, is the same place. A page from elsewhere that
 * has its name point at 127.0.0.1 fails the first test, one that simply calls us the second.
 */
export function isLocal(host: string | undefined, origin: string | undefined): boolean {
  return host !== undefined && LOCAL.test(host) && isSamePlace(host, origin);
}

/** The same for a door that opens to a network: the Host must be one of `hosts` (names with ports). */
export function isFrom(hosts: readonly string[], host: string | undefined, origin: string | undefined): boolean {
  return host !== undefined && hosts.includes(host.toLowerCase()) && isSamePlace(host, origin);
}

function isSamePlace(host: string, origin: string | undefined): boolean {
  if (origin === undefined) return true;
  try {
    return new URL(origin).host === host.toLowerCase();
  } catch {
    return false;
  }
}
