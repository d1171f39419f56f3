import { parentPort } from 'node:worker_threads'
import type { Study } from '@yperkine/core'
import { drawStudy } from './picture'

// The other side of drawInThread: a study comes in, its picture goes out.
parentPort?.on('message', (study: Study) => parentPort?.postMessage(drawStudy(study)))
