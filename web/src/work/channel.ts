import { proxy, type Remote, wrap } from 'comlink'
import type { Running } from './latest'
import { startWorker } from './startWorker'
import type { WorkerMethods } from './worker'

let remote: Remote<WorkerMethods> | null = null
let revisions = 0

/** The one worker of the page, started when it is first needed. */
function worker(): Remote<WorkerMethods> {
  remote ??= wrap<WorkerMethods>(startWorker())
  return remote
}

/** What can be asked. */
export type Asked = Exclude<keyof WorkerMethods, 'cancel'>
export type Job<A extends Asked> = Omit<Parameters<WorkerMethods[A]>[0], 'revision'>
export type Answer<A extends Asked> = NonNullable<Awaited<ReturnType<WorkerMethods[A]>>>

type Method<A extends Asked> = (
  job: Job<A> & { revision: number },
  onProgress: (share: number) => void,
) => Promise<Answer<A> | null>

/** Asks the worker; the answer carries the revision it was asked with. */
export function askWorker<A extends Asked>(
  what: A,
  job: Job<A>,
  onProgress: (share: number) => void,
): Running<Answer<A>> {
  revisions += 1
  const revision = revisions
  const method = worker()[what] as unknown as Method<A>
  return {
    result: method({ ...job, revision }, proxy(onProgress)).then((answer) =>
      answer?.revision === revision ? answer : null,
    ),
    stop: () => void worker().cancel(revision),
  }
}
