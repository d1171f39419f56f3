/** The worker of the page, from a file of its own. */
export const startWorker = () =>
  new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' })
