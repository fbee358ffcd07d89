// Metro bundles a worker where it sees this very expression.

export function startLightWorker(): Worker {
  return new Worker(new URL('./light.worker.ts', import.meta.url));
}

export function startAnalysisWorker(): Worker {
  return new Worker(new URL('./analysis.worker.ts', import.meta.url));
}

export function startFlashWorker(): Worker {
  return new Worker(new URL('./flash.worker.ts', import.meta.url));
}
