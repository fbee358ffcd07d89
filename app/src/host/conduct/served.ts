// Whether this address is a Hovlix server, or ever was one, and not just some web host that has its files.

const KEY = 'hovlix-served';

export function rememberServer(): void {
  try {
    window.localStorage.setItem(KEY, 'yes');
  } catch {
    // Nothing but a habit: without it a page that opened alone stays alone until it is reloaded.
  }
}

export function hadServer(): boolean {
  try {
    return window.localStorage.getItem(KEY) === 'yes';
  } catch {
    return false;
  }
}

/**
 * Whether a Hovlix is where this page came from. A static host answers with a page or a 404; our server with its status, or
 * that this device has to join first. Unknown where nothing answered, as in a Wi-Fi that changes just then.
 */
export async function isServed(): Promise<'yes' | 'no' | 'unknown'> {
  try {
    const response = await fetch('/api/status', { cache: 'no-store' });
    if (response.status === 401) window.location.reload();
    if (response.status >= 500) return 'unknown';
    return response.ok && (response.headers.get('content-type') ?? '').includes('json') ? 'yes' : 'no';
  } catch {
    return 'unknown';
  }
}
