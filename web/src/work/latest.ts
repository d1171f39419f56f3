/** A piece of work that can be asked to stop. */
export interface Running<R> {
  /** The result, or null where it was stopped. */
  result: Promise<R | null>
  stop: () => void
}

export interface Latest<J, R> {
  ask: (job: J) => void
  stop: () => void
  /** Set from outside: hears each result together with the job it belongs to. */
  onResult: (result: R, job: J) => void
  onFault: (fault: unknown, job: J) => void
}

/**
 * A queue of one: while a job runs only the newest of those that come in waits, and the running one
 * is told to stop. A result that comes in after a newer job was asked for is never handed on.
 */
export function latestWins<J, R>(start: (job: J) => Running<R>): Latest<J, R> {
  let running: { job: J; work: Running<R> } | null = null
  let waiting: { job: J } | null = null
  let wanted: J | null = null

  const begin = (job: J) => {
    const work = start(job)
    running = { job, work }
    void work.result
      .then(
        (result) => {
          if (result !== null && wanted === job) queue.onResult(result, job)
        },
        (fault: unknown) => {
          if (wanted === job) queue.onFault(fault, job)
        },
      )
      .finally(() => {
        running = null
        const next = waiting
        waiting = null
        if (next) begin(next.job)
      })
  }
  const queue: Latest<J, R> = {
    ask(job) {
      wanted = job
      if (running) {
        waiting = { job }
        running.work.stop()
      } else begin(job)
    },
    stop() {
      wanted = null
      waiting = null
      running?.work.stop()
    },
    onResult: () => undefined,
    onFault: () => undefined,
  }
  return queue
}
