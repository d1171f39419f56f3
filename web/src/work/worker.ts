import {
  createEvaluator,
  type Examination,
  examineInSteps,
  findRange,
  type LineResult,
  type RangeFound,
  studySchema,
} from '@yperkine/core'
import { expose } from 'comlink'
import { drive } from './drive'

/** What goes over: a text and plain values, never functions. */
export interface CurveJob {
  /** Which question this is; the answer carries it. */
  revision: number
  /** The study as JSON; its formulas are compiled here, and kept while the text is the same. */
  study: string
  curve: string
}
export interface LineJob {
  revision: number
  study: string
  /** Its id. */
  line: string
}
export interface RangeJob extends CurveJob {
  order: number
}

// Here work may take as long as it needs.
const evaluate = createEvaluator({ patience: Infinity })
let known: { text: string; results: ReturnType<typeof evaluate> } | null = null
const cancelled = new Set<number>()

function resultsOf(text: string) {
  if (known?.text !== text) {
    known = { text, results: evaluate(studySchema.parse(JSON.parse(text))) }
  }
  return known.results
}

const turns = new MessageChannel()
const waiting: (() => void)[] = []
turns.port1.onmessage = () => waiting.shift()?.()
/** A message of our own stands in line behind those that came before it; a timer would idle 4 ms. */
const breathe = () =>
  new Promise<void>((resolve) => {
    waiting.push(resolve)
    turns.port2.postMessage(0)
  })

const driven = <R>(
  work: Generator<number, R, void>,
  revision: number,
  onProgress: (share: number) => void,
) =>
  drive(work, {
    now: () => performance.now(),
    breathe,
    isCancelled: () => cancelled.has(revision),
    onProgress,
  }).finally(() => cancelled.delete(revision))

/** Functions do not go over. */
const isPlain = (mark: object) => Object.values(mark).every((part) => typeof part !== 'function')

const methods = {
  async range(
    { revision, study, curve, order }: RangeJob,
    onProgress: (share: number) => void,
  ): Promise<{ revision: number; found: RangeFound } | null> {
    const looked = resultsOf(study).curves.get(curve)
    if (!looked?.ok) return null
    const { from, to } = looked.curve
    const { f } = looked.curve.derivative(order)
    const found = await driven(findRange(f, from, to), revision, onProgress)
    return found && { revision, found }
  },
  async examination({
    revision,
    study,
    curve,
  }: CurveJob): Promise<{ revision: number; found: Examination } | null> {
    const looked = resultsOf(study).curves.get(curve)
    if (!looked?.ok) return null
    const { f, from, to } = looked.curve
    const found = await driven(examineInSteps(f, from, to), revision, () => undefined)
    return found && { revision, found }
  },
  /** A line whose work takes too long for the page. Its marks are plain data in these kinds. */
  line({
    revision,
    study,
    line,
  }: LineJob): Promise<{ revision: number; found: LineResult } | null> {
    const found = resultsOf(study).lines.get(line)
    const plain = found && { ...found, marks: found.marks.filter(isPlain) }
    return Promise.resolve(plain && !cancelled.delete(revision) ? { revision, found: plain } : null)
  },
  cancel(revision: number) {
    cancelled.add(revision)
  },
}
export type WorkerMethods = typeof methods

expose(methods)
