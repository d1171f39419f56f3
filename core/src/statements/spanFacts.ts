import { accumulate, type Accumulation } from '../calculus/accumulate'
import { type Integral, integrate } from '../calculus/integrate'
import type { RealFunction } from '../evaluate/compile'
import { type Examination, examineInSteps } from '../features/examine'
import type { CurveResult, LineContext } from './kind'

/** What is known of a curve over a span, however its strips are cut. */
export interface SpanFacts {
  f: RealFunction
  from: number
  to: number
  readonly exact: Integral
  readonly area: Accumulation
  /** null where the examination takes longer than a line may wait. */
  examination: Examination | null
  /** Places at which f turns or breaks, in order. */
  turns: readonly number[]
  /** Room for what else is worked out from these alone. */
  memo: Map<string, unknown>
}

const known = new WeakMap<CurveResult, Map<string, SpanFacts>>()
const mostKept = 12

/** Works them out once for each curve and span: strips are recut at every frame of a drag. */
export function spanFacts(
  curve: CurveResult,
  order: number,
  from: number,
  to: number,
  { steps }: LineContext,
): SpanFacts {
  let facts = known.get(curve)
  if (!facts) known.set(curve, (facts = new Map()))
  const key = `${order} ${from} ${to}`
  const found = facts.get(key)
  if (found?.examination) return found
  const { f } = curve.derivative(order)
  const examination = steps(examineInSteps(f, from, to))
  const turns = examination
    ? [...examination.criticalPoints, ...examination.breaks].map((p) => p.x).sort((a, b) => a - b)
    : []
  const memo = found?.memo ?? new Map<string, unknown>()
  const once = <T>(what: string, work: () => T): T => {
    if (!memo.has(what)) memo.set(what, work())
    return memo.get(what) as T
  }
  const made: SpanFacts = {
    f,
    from,
    to,
    // Lists of features need neither, and some areas take their time.
    get exact() {
      return once('exact', () => integrate(f, from, to))
    },
    get area() {
      return once('area', () => accumulate(f, from, from, to))
    },
    examination,
    turns,
    memo,
  }
  if (facts.size > mostKept) facts.clear()
  facts.set(key, made)
  return made
}

/** Something worked out once from the facts of a span. */
export function remember<T>({ memo }: SpanFacts, key: string, work: () => T): T {
  if (!memo.has(key)) memo.set(key, work())
  return memo.get(key) as T
}
