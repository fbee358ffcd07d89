// Back closes what lies over a place, as on a phone everything else does. While anything is open the history has one entry
// more. A press on Close goes back over it; closed by anything else, it is left, and skipped by the next Back: a step back
// of our own must never meet a step forward of the router.

type Open = { readonly close: () => void };

const open: Open[] = [];
/** An entry of ours is left behind: it is the one that is shown, or lies right behind what was opened since. */
let left = false;
/** We go back ourselves: the place stays, and the router need not know. */
let leaving = false;

const isOurs = (): boolean => (window.history.state as { readonly over?: true } | null)?.over === true;

/** The router's own entry is kept in it, so that the router sees its place unchanged. */
const mark = (): void => {
  left = false;
  if (!isOurs()) window.history.pushState({ ...(window.history.state as object | null), over: true }, '');
};

function wentBack(event: PopStateEvent): void {
  const top = open.at(-1);
  if (leaving || top) event.stopImmediatePropagation();
  if (leaving) {
    leaving = false;
    // What was closed led to another sheet.
    if (top) mark();
  } else if (top) {
    top.close();
    // A sheet that is still open is closed by the next one.
    setTimeout(() => open.length > 0 && mark(), 0);
  } else if (left || isOurs()) {
    // What was left behind is no place of its own: on it, or come from it, the way leads on.
    left = false;
    event.stopImmediatePropagation();
    window.history.back();
  }
}

// Before the router listens (app/index.ts): listeners of a window are called in the order in which they came.
window.addEventListener('popstate', wentBack);

export type OnBack = {
  /** Somebody pressed Close: the entry goes at once. */
  readonly closing: () => void;
  /** It is gone, whatever closed it. */
  readonly gone: () => void;
};

/** @param close is called when the user goes back while nothing lies above it. */
export function closeOnBack(close: () => void): OnBack {
  const mine = { close };
  open.push(mine);
  mark();
  const remove = () => {
    const at = open.indexOf(mine);
    if (at >= 0) open.splice(at, 1);
    return at >= 0 && open.length === 0 && isOurs();
  };
  return {
    closing() {
      if (!remove()) return;
      leaving = true;
      window.history.back();
    },
    gone: () => void (remove() && (left = true)),
  };
}
