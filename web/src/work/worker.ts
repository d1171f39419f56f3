import '../noGeneratedCode'
import {
  createEvaluator,
  type Evaluation,
  type Examination,
  examineInSteps,
  rangeInSteps,
  type Range,
  type Study,
  studySchema,
} from '@yperkine/core'
import { expose } from 'comlink'
import { drive } from './drive'
import { sharingParts } from './sharing'

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

export interface ExaminationJob extends CurveJob {
  /** The stretch to be looked at. */
  from: number
  to: number
}

/** Curves, and the long work of lines, which looks at them. */
const evaluate = createEvaluator({ results: false, sentences: false })

/** The last study that was read: questions come in numbers about the same one. */
let known: { text: string; study: Study; curves: Evaluation['curves'] | null } | null = null
const cancelled = new Set<number>()

function studyOf(text: string) {
  if (known?.text !== text) {
    const study = sharingParts(studySchema.parse(JSON.parse(text)), known?.study ?? null)
    known = { text, study, curves: null }
  }
  return known
}
function curvesOf(text: string) {
  const read = studyOf(text)
  return (read.curves ??= evaluate(read.study).curves)
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

/** An outcome in a box: null is what work that was stopped comes to. */
function* boxed(work: Generator<number, unknown, void>) {
  return { outcome: yield* work }
}

const methods = {
  async range(
    { revision, study, curve, order }: RangeJob,
    onProgress: (share: number) => void,
  ): Promise<{ revision: number; found: Range } | null> {
    const looked = curvesOf(study).get(curve)
    if (!looked?.ok) return null
    const { from, to } = looked.curve
    const { f } = looked.curve.derivative(order)
    const found = await driven(rangeInSteps(f, from, to), revision, onProgress)
    return found && { revision, found }
  },
  async examination({
    revision,
    study,
    curve,
    from,
    to,
  }: ExaminationJob): Promise<{ revision: number; found: Examination } | null> {
    const looked = curvesOf(study).get(curve)
    if (!looked?.ok) return null
    const { f } = looked.curve
    const found = await driven(examineInSteps(f, from, to), revision, () => undefined)
    return found && { revision, found }
  },
  /** What the long work of a line comes to, for the page to put in its place. */
  async line(
    { revision, study: text, line }: LineJob,
    onProgress: (share: number) => void,
  ): Promise<{ revision: number; outcome: unknown } | null> {
    const work = evaluate.long(studyOf(text).study, line)
    const done = work && (await driven(boxed(work), revision, onProgress))
    return done && { revision, outcome: done.outcome }
  },
  cancel(revision: number) {
    cancelled.add(revision)
  },
}
export type WorkerMethods = typeof methods

expose(methods)
