// What sounds in a page: its audio elements are part of no document.

import type { Page } from '@playwright/test';

declare global {
  interface Window {
    /** Every audio element that the page made. */
    readonly sounding: readonly HTMLAudioElement[];
  }
}

/** From the next page on, `window.sounding` has all that makes sound. */
export async function rememberSounds(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const sounding: HTMLAudioElement[] = [];
    const Real = window.Audio;
    window.Audio = function remembered(src?: string) {
      const audio = new Real(src);
      sounding.push(audio);
      return audio;
    } as unknown as typeof Audio;
    Object.assign(window, { sounding });
  });
}
