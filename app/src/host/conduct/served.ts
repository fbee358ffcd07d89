// Whether this address ever was a Hovlix server, and not just some web host that has its files.

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
