import { proxy, type Remote, wrap } from 'comlink'
import type { Running } from './latest'
import type { CurveJob, LineJob, RangeJob, WorkerMethods } from './worker'

let remote: Remote<WorkerMethods> | null = null
let revisions = 0

/** The one worker of the page, started when it is first needed. */
function worker(): Remote<WorkerMethods> {
  remote ??= wrap<WorkerMethods>(
    new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' }),
  )
  return remote
}

type Answer = Awaited<ReturnType<WorkerMethods['range']>>

/** Asks the worker for the range of a curve; the answer carries the revision it was asked with. */
export function askRange(
  job: Omit<RangeJob, 'revision'>,
  onProgress: (share: number) => void,
): Running<NonNullable<Answer>> {
  revisions += 1
  const revision = revisions
  return {
    result: worker()
      .range({ ...job, revision }, proxy(onProgress))
      .then((answer) => (answer?.revision === revision ? answer : null)),
    stop: () => void worker().cancel(revision),
  }
}

/** Asks the worker for everything about a curve on its span, with proof. */
export function askExamination(
  job: Omit<CurveJob, 'revision'>,
): Running<NonNullable<Awaited<ReturnType<WorkerMethods['examination']>>>> {
  revisions += 1
  const revision = revisions
  return {
    result: worker()
      .examination({ ...job, revision })
      .then((answer) => (answer?.revision === revision ? answer : null)),
    stop: () => void worker().cancel(revision),
  }
}

/** Asks the worker for a line whose work takes too long for the page. */
export function askLine(
  job: Omit<LineJob, 'revision'>,
  onProgress: (share: number) => void,
): Running<NonNullable<Awaited<ReturnType<WorkerMethods['line']>>>> {
  revisions += 1
  const revision = revisions
  return {
    result: worker()
      .line({ ...job, revision }, proxy(onProgress))
      .then((answer) => (answer?.revision === revision ? answer : null)),
    stop: () => void worker().cancel(revision),
  }
}
