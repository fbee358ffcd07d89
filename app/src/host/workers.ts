// Metro bundles a worker where it sees this very expression.

export function startLightWorker(): Worker {
  return new Worker(new URL('./light/light.worker.ts', import.meta.url));
}

export function startAnalysisWorker(): Worker {
  return new Worker(new URL('./sound/analysis.worker.ts', import.meta.url));
}

export function startFlashWorker(): Worker {
  return new Worker(new URL('./light/flash.worker.ts', import.meta.url));
}
