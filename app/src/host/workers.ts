// Workers are bundled beside the app (scripts/build-workers.mjs). A built page says in its head where each is, under a
// name that changes with its contents; while the app is developed they have plain names.

type Name = 'light' | 'analysis' | 'flash' | 'music';

function start(name: Name): Worker {
  const built = document.querySelector<HTMLLinkElement>(`link[data-worker="${name}"]`)?.href;
  return new Worker(built ?? `/workers/${name}.js`, { type: 'module' });
}

export const startLightWorker = (): Worker => start('light');

export const startAnalysisWorker = (): Worker => start('analysis');

export const startFlashWorker = (): Worker => start('flash');

export const startMusicWorker = (): Worker => start('music');
