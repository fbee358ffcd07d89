// The screen itself: kept awake on stage, and used to its edges.

/** Keeps the screen from going dark while it is shown. @returns what ends that. */
export function keepAwake(): () => void {
  let lock: WakeLockSentinel | undefined;
  let over = false;
  const ask = () => {
    if (over || window.document.visibilityState !== 'visible') return;
    // Refused where the battery is low, or not there at all: then the screen does as it is set.
    void navigator.wakeLock?.request('screen').then(
      (got) => (over ? void got.release() : void (lock = got)),
      () => undefined,
    );
  };
  ask();
  // A screen that was put away lets go of it by itself.
  window.document.addEventListener('visibilitychange', ask);
  return () => {
    over = true;
    window.document.removeEventListener('visibilitychange', ask);
    void lock?.release();
  };
}

export const canFillScreen = (): boolean => window.document.fullscreenEnabled;

export async function fillScreen(fill: boolean): Promise<void> {
  if (fill && !window.document.fullscreenElement) await window.document.documentElement.requestFullscreen();
  else if (!fill && window.document.fullscreenElement) await window.document.exitFullscreen();
}
