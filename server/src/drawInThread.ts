import { Worker } from 'node:worker_threads'
import type { Picture, Study } from '@yperkine/core'

/** How long one picture may take, in milliseconds; most take a few, and a machine may be busy. */
const patience = 10_000

interface Job {
  resolve: (picture: Picture) => void
  reject: (error: Error) => void
  late: ReturnType<typeof setTimeout>
}

/**
 * Draws in a thread of its own, one study at a time, so that no answer waits for a picture. A
 * picture that takes too long, or ends the thread, is given up, and the next one gets a new thread.
 */
export function createThreadDrawing(file: URL) {
  let worker: Worker | null = null
  let job: Job | null = null

  const finish = (): Job | null => {
    const done = job
    job = null
    if (done) clearTimeout(done.late)
    return done
  }
  const giveUp = (error: Error) => {
    const thread = worker
    worker = null
    void thread?.terminate()
    finish()?.reject(error)
  }
  const start = () => {
    const thread = new Worker(file)
    thread.on('message', (picture: Picture) => finish()?.resolve(picture))
    thread.on('error', (error) => thread === worker && giveUp(error))
    thread.on('exit', () => thread === worker && giveUp(new Error('the thread has ended')))
    // It ends with the server and keeps it from nothing.
    thread.unref()
    return thread
  }

  const draw = (study: Study) =>
    new Promise<Picture>((resolve, reject) => {
      if (job) throw new Error('one study is drawn at a time')
      const late = setTimeout(() => giveUp(new Error(`no picture in ${patience} ms`)), patience)
      job = { resolve, reject, late }
      worker ??= start()
      worker.postMessage(study)
    })

  return { draw, stop: async () => void (await worker?.terminate()) }
}
