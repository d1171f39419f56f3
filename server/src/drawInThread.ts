import { Worker } from 'node:worker_threads'
import type { Picture, Study } from '@yperkine/core'

/** How long one picture may take, in milliseconds; most take a few. */
const patience = 5000

/**
 * Draws in a thread of its own, one study at a time, so that no answer waits for a picture. A
 * picture that takes too long, or ends the thread, is given up, and the next one gets a new thread.
 */
export function createThreadDrawing(file: URL) {
  let worker: Worker | null = null

  const draw = (study: Study) =>
    new Promise<Picture>((resolve, reject) => {
      const thread = (worker ??= new Worker(file))
      // It ends with the server and keeps it from nothing.
      thread.unref()
      const settle = (act: () => void, givenUp: boolean) => {
        clearTimeout(late)
        thread.removeAllListeners()
        if (givenUp) {
          worker = null
          void thread.terminate()
        }
        act()
      }
      const fail = (error: Error) => settle(() => reject(error), true)
      const late = setTimeout(() => fail(new Error(`no picture in ${patience} ms`)), patience)
      thread.once('message', (picture: Picture) => settle(() => resolve(picture), false))
      thread.once('error', fail)
      thread.once('exit', () => fail(new Error('the thread has ended')))
      thread.postMessage(study)
    })

  return { draw, stop: async () => void (await worker?.terminate()) }
}
