import { accumulate, type Accumulation } from '../../calculus/accumulate'
import { type Integral, integrate } from '../../calculus/integrate'
import { compensatedSum } from '../../calculus/quadrature'
import { compileTree, type RealFunction } from '../../evaluate/compile'
import { withValues } from '../../evaluate/withValues'
import type { Examination } from '../../features/examination'
import { examineInSteps, type SignChanges, signChangesInSteps } from '../../features/examine'
import type { Steps } from '../../features/budget'
import { call, keyOf } from '../../formula/tree'
import { type End, exactAreaNumber, exactAverageNumber } from '../../vocabulary/exactArea'
import type { Told } from '../../vocabulary/told'
import type { SpanText } from '../../vocabulary/members'
import type { CurveResult, LineContext, LongWork } from '../contract'
import { lookOverFormula } from './overSpan'
import { endOf, tellWithin } from './toldNumbers'

/** What is known of a curve over a span, however its strips are cut. */
export interface SpanFacts {
  f: RealFunction
  from: number
  to: number
  readonly exact: Integral
  readonly area: Accumulation
  /** null where the examination takes longer than a line may wait. */
  readonly examination: Examination | null
  /** Zeros and breaks alone; null where they have not been asked for, or take longer. */
  readonly signChanges: SignChanges | null
  /** Places at which f turns or breaks, in order; none while the examination is under way. */
  readonly turns: readonly number[]
  /** Room for what else is worked out from these alone. */
  memo: Map<string, unknown>
}

/** What a line may want to know of a curve over a span. */
type Wanted = 'examination' | 'signChanges'

/**
 * Works them out once for each curve and span: strips are recut at every frame of a drag. An
 * examination that is cut short goes on where it stopped when it is asked for again.
 */
export const spanFacts = (
  curve: CurveResult,
  order: number,
  from: number,
  to: number,
  context: LineContext,
): SpanFacts => factsWith('examination', curve, order, from, to, context)

/** The same for a line that wants no more than where f is positive and negative. */
export const spanSigns = (
  curve: CurveResult,
  order: number,
  from: number,
  to: number,
  context: LineContext,
): SpanFacts => factsWith('signChanges', curve, order, from, to, context)

function factsWith(
  wanted: Wanted,
  curve: CurveResult,
  order: number,
  from: number,
  to: number,
  context: LineContext,
): SpanFacts {
  const facts = factsOf({ curve, order, from, to }, context)
  facts.goOn(wanted, context.steps)
  return facts
}

/** A question about a curve over a span. */
export interface Ask {
  curve: CurveResult
  order: number
  from: number
  to: number
}

const factsOf = ({ curve, order, from, to }: Ask, context: LineContext): Known =>
  context.memo(
    curve,
    `facts ${order} ${from} ${to}`,
    () => new Known(curve.derivative(order).f, from, to),
  )

/** The long work of a line that asks such questions: what it finds is known to every other line. */
export const longOver = <L>(
  asks: (line: L, context: LineContext) => readonly Ask[],
  wanted: Wanted = 'examination',
): LongWork<L> => ({
  steps(line, context) {
    const all = asks(line, context)
    if (all.length === 0) return null
    return answered(
      all.map((ask) => factsOf(ask, context)),
      wanted,
    )
  },
  apply(line, outcome, context) {
    const found = outcome as readonly (Examination & SignChanges)[]
    asks(line, context).forEach((ask, i) => factsOf(ask, context).take(wanted, found[i]!))
  },
})

/** Work that was stopped before goes on where it was. */
function* answered(all: readonly Known[], wanted: Wanted): Steps<(Examination | SignChanges)[]> {
  for (const [i, facts] of all.entries()) {
    while (!facts.step(wanted)) yield (i + facts.share) / all.length
  }
  return all.map((facts) => facts[wanted]!)
}

/** The question of a line over its span, or none where something is in its way. */
export const asksOver =
  (orders: readonly number[] = [0]) =>
  (
    line: { curve: string; order: number; span: SpanText },
    context: LineContext,
  ): readonly Ask[] => {
    const over = lookOverFormula(line, context)
    if (!over.ok) return []
    const { curve, from, to } = over
    return orders.map((k) => ({ curve, order: line.order + k, from, to }))
  }

class Known implements SpanFacts {
  examination: Examination | null = null
  turns: readonly number[] = []
  signChanges: SignChanges | null = null
  /** How much of the work is done, from 0 to 1. */
  share = 0
  readonly memo = new Map<string, unknown>()
  private examining: Steps<Examination>
  private asking: Steps<SignChanges>

  constructor(
    readonly f: RealFunction,
    readonly from: number,
    readonly to: number,
  ) {
    this.examining = examineInSteps(f, from, to)
    this.asking = signChangesInSteps(f, from, to)
  }

  goOn(wanted: Wanted, steps: LineContext['steps']) {
    if (!this[wanted]) steps(this.toTheEnd(wanted))
  }

  private *toTheEnd(wanted: Wanted): Steps<void> {
    while (!this.step(wanted)) yield this.share
  }

  /** One more step of the work; true where it is done. */
  step(wanted: Wanted): boolean {
    if (this[wanted]) return true
    try {
      const step = (wanted === 'examination' ? this.examining : this.asking).next()
      if (step.done) this.take(wanted, step.value as Examination & SignChanges)
      else this.share = step.value
      return step.done === true
    } catch (error) {
      // Work that has failed cannot go on; asked for again, it begins anew.
      this.examining = examineInSteps(this.f, this.from, this.to)
      this.asking = signChangesInSteps(this.f, this.from, this.to)
      throw error
    }
  }

  take(wanted: Wanted, found: Examination & SignChanges) {
    this.signChanges = found
    if (wanted === 'signChanges') return
    this.examination = found
    this.turns = [...found.criticalPoints, ...found.breaks].map((p) => p.x).sort((a, b) => a - b)
  }

  // Lists of features need neither, and some areas take their time.
  get exact(): Integral {
    return remember(this, 'exact', () => integrate(this.f, this.from, this.to))
  }
  get area(): Accumulation {
    return remember(this, 'area', () => accumulate(this.f, this.from, this.from, this.to))
  }
}

/** The area or the average over a span as it is read, by its ends as they were typed. */
export function toldOver(
  what: 'area' | 'average',
  { span }: { span: SpanText },
  facts: SpanFacts,
  context: LineContext,
): Told {
  const { decimals } = context
  const { f, exact } = facts
  const ends = [span.from, span.to].map((text, i) =>
    endOf(text, i === 0 ? facts.from : facts.to, context),
  )
  const key = ends.map(({ tree }) => keyOf(tree)).join(' ')
  const isTyped = ends.every((end) => end.exact !== null)
  return remember(facts, `told ${what} ${decimals} ${isTyped} ${key}`, () => {
    const [from, to] = ends.map(({ x, tree }): End => ({ value: x, exact: tree })) as [End, End]
    const work = what === 'area' ? exactAreaNumber : exactAverageNumber
    const share = what === 'area' ? 1 : facts.to - facts.from
    const { value, errorBound } = exact
    return tellWithin(
      work(f, from, to, exact),
      { value: value / share, errorBound: errorBound / Math.abs(share) },
      context,
      isTyped,
    )
  })
}

/** The area with every part counted as positive, as it is read. */
export function toldTotal(
  { span }: { span: SpanText },
  facts: SpanFacts,
  total: number,
  context: LineContext,
): Told {
  const { f, exact } = facts
  const [first, last] = [span.from, span.to].map((text, i) =>
    endOf(text, i === 0 ? facts.from : facts.to, context),
  ) as [ReturnType<typeof endOf>, ReturnType<typeof endOf>]
  const isTyped = first.exact !== null && last.exact !== null
  const key = `total ${context.decimals} ${isTyped} ${keyOf(first.tree)} ${keyOf(last.tree)}`
  return remember(facts, key, () => {
    const size = compileTree(call('abs', withValues(f.tree, f.parameters)), {
      variable: f.variable,
    })
    const [from, to] = [first, last].map(({ x, tree }): End => ({ value: x, exact: tree })) as [
      End,
      End,
    ]
    const integral = { ...exact, value: total }
    return tellWithin(exactAreaNumber(size, from, to, integral), integral, context, isTyped)
  })
}

/** Something worked out once from the facts of a span. */
export function remember<T>({ memo }: SpanFacts, key: string, work: () => T): T {
  if (!memo.has(key)) memo.set(key, work())
  return memo.get(key) as T
}

/** The area with every part counted as positive, from the proven zeros. */
export function totalOf({ area, from, to, signChanges }: SpanFacts): number | null {
  if (!signChanges?.complete) return null
  const breaks = signChanges.breaks.map((b) => b.x)
  const cuts = [from, ...signChanges.zeros.map((z) => z.x), ...breaks, to]
    .filter((x) => x >= from && x <= to)
    .sort((a, b) => a - b)
  return compensatedSum(cuts.slice(1).map((x, i) => Math.abs(area.value(x) - area.value(cuts[i]!))))
}
