import type { RealFunction } from '../evaluate/compile'
import * as I from '../arithmetic/intervals'
import { withValues } from '../evaluate/withValues'
import { decimalOfNumber } from '../arithmetic/rational'
import { exactly, negate, sum, type Tree } from '../formula/tree'
import { substitute } from '../algebra/curves'
import { simplify } from '../algebra/simplify'
import { checkedSpan } from './examine'
import type { Feature } from './examination'
import { zerosOn } from './splits'
import { budgetOf, finish, type Steps } from './budget'

export interface Solutions {
  /** Each place with the value of f there, in order. */
  solutions: Feature[]
  complete: boolean
  unresolved: [number, number][]
  /** Stretches on which every place is a solution. */
  stretches: [number, number][]
  boxes: number
}

/**
 * Where f takes a value, or meets another function, on the closed span [from, to], with proof that
 * the list is whole or with what could not be settled. A number is taken as the decimal it is
 * written with. Ends the wrong way round are put right; equal or infinite ones throw RangeError.
 */
export const solve = (
  f: RealFunction,
  target: number | RealFunction,
  from: number,
  to: number,
): Solutions => finish(solveInSteps(f, target, from, to))

/** The same in steps, so that long work can be stopped; it yields the share of its budget. */
export function* solveInSteps(
  f: RealFunction,
  target: number | RealFunction,
  from: number,
  to: number,
): Steps<Solutions> {
  const [a, b] = checkedSpan(from, to)
  if (typeof target === 'number' && !Number.isFinite(target)) {
    throw new RangeError(`a level must be a finite number: ${target}`)
  }
  const tree = withValues(f.tree, f.parameters)
  const other: Tree =
    typeof target === 'number'
      ? exactly(decimalOfNumber(target), true)
      : substitute(withValues(target.tree, target.parameters), target.variable, {
          kind: 'name',
          name: f.variable,
        })
  const difference = simplify(sum(tree, negate(other)))
  const budget = budgetOf()
  const found = yield* zerosOn(difference, f.variable, a, b, budget)
  const pair = ({ lo, hi }: I.Interval): [number, number] => [lo, hi]
  return {
    solutions: found.zeros.map(({ enclosure, proven }) => {
      const x = Math.min(b, Math.max(a, I.middle(enclosure)))
      return { x, value: f.value(x), enclosure: pair(enclosure), proven }
    }),
    complete: found.unresolved.length === 0,
    unresolved: found.unresolved.map(pair),
    stretches: found.vanishing.map(pair),
    boxes: Math.ceil(budget.boxes),
  }
}
