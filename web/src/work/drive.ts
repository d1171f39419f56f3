export interface DriveOptions {
  /** How long to work before others get their turn, in milliseconds. */
  slice?: number
  now: () => number
  /** Lets other messages, such as a cancellation, come in. */
  breathe: () => Promise<void>
  isCancelled: () => boolean
  onProgress: (share: number) => void
}

/** Runs a generator in slices to its result; null where it was cancelled on the way. */
export async function drive<R>(
  work: Generator<number, R>,
  options: DriveOptions,
): Promise<R | null> {
  const { slice = 5, now, breathe, isCancelled, onProgress } = options
  let began = now()
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
    if (now() - began < slice) continue
    onProgress(step.value)
    await breathe()
    if (isCancelled()) return null
    began = now()
  }
}
