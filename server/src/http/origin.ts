// Only pages that this server itself served may talk to it, and only from this computer.

const LOCAL = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/**
 * True when the Host is this computer and the Origin, where there is one, is the same place. A page from elsewhere that
 * has its name point at 127.0.0.1 fails the first test, one that simply calls us the second.
 */
export function isLocal(host: string | undefined, origin: string | undefined): boolean {
  if (!host || !LOCAL.test(host)) return false;
  if (origin === undefined) return true;
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}
