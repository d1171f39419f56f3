import { compileTree, type RealFunction } from '../../evaluate/compile'
import { withValues } from '../../evaluate/withValues'
import { simplify } from '../../algebra/simplify'
import * as I from '../../arithmetic/intervals'
import { decimalOfNumber } from '../../arithmetic/rational'
import type { Examination } from '../../features/examination'
import { type Const, Constants, signOf, Unsure } from '../../features/limits/constants'
import {
  lookAtPlace,
  type PlaceFacts,
  type PlaceKind,
  type SideFacts,
} from '../../features/place/placeFacts'
import { valueAtPlace } from '../../features/place/valueAt'
import { exactly, negate, quotient, sum, type Tree } from '../../formula/tree'
import { near } from '../shared/signStretches'

/** Whether something holds; null where that is not settled. */
export type Holds = boolean | null

/** A condition of a theorem, with the place at which it fails. */
export interface Condition {
  holds: Holds
  /** The first place at which it fails, or is not settled, and what the function does there. */
  at: { x: number; does: PlaceKind } | null
}

/** Where a function is not continuous, or has no slope; what it does there. */
interface Obstacle {
  x: number
  does: PlaceKind
}

const notContinuous: readonly PlaceKind[] = [
  'hole',
  'displaced',
  'jump',
  'pole',
  'oscillation',
  'end',
  'isolated',
  'outside',
]
const slopeless: readonly PlaceKind[] = ['kink', 'cusp', 'vertical', 'swings']

/** Open stretches narrower than this are places: they can be looked at. */
const narrow = 1e-9

/**
 * Places of a closed span at which f may not be continuous or have no slope: its breaks, the ends,
 * and what was left open, each looked at by itself.
 */
export function obstaclesOf(
  f: RealFunction,
  [from, to]: readonly [Given, Given],
  { breaks, openBreaks }: Examination,
): { obstacles: Obstacle[]; open: boolean } {
  const isPlace = ([lo, hi]: readonly [number, number]) =>
    hi - lo <= narrow * Math.max(1, Math.abs(lo))
  const places = [
    ...breaks.map((b) => b.x),
    ...openBreaks.filter(isPlace).map(([lo, hi]) => lo + (hi - lo) / 2),
  ].filter((x) => !near(x, from.value) && !near(x, to.value))
  const inside = [...new Set(places)].map((x): Obstacle => ({ x, does: lookAtPlace(f, x).kind }))
  const ends = [from, to].flatMap((end, i): Obstacle[] => {
    const facts = lookAtPlace(f, end.value, end.exact)
    const side = i === 0 ? facts.right : facts.left
    return side.continuous ? [] : [{ x: end.value, does: fromInside(facts, side) }]
  })
  return {
    obstacles: [...ends, ...inside].sort((a, b) => a.x - b.x),
    open: openBreaks.some((stretch) => !isPlace(stretch)),
  }
}

/** What a function does at an end at which it is not continuous from inside. */
function fromInside({ kind, value }: PlaceFacts, { limit }: SideFacts): PlaceKind {
  if (kind === 'unsettled') return kind
  switch (limit?.kind) {
    case 'value':
      return value ? 'displaced' : 'hole'
    case 'infinite':
      return 'pole'
    case 'none':
      return 'oscillation'
    case 'unsettled':
      return 'unsettled'
    default:
      return value ? 'isolated' : 'outside'
  }
}

type Obstacles = ReturnType<typeof obstaclesOf>

/** Continuous on the closed span. */
export function continuous({ obstacles, open }: Obstacles): Condition {
  const bad = obstacles.find(({ does }) => notContinuous.includes(does))
  if (bad) return { holds: false, at: bad }
  const unsettled = obstacles.find(({ does }) => does === 'unsettled')
  return { holds: unsettled || open ? null : true, at: unsettled ?? null }
}

/** With a slope at every place inside. */
export function differentiable(
  { obstacles, open }: Obstacles,
  [from, to]: readonly [Given, Given],
): Condition {
  const inside = obstacles.filter(({ x }) => !near(x, from.value) && !near(x, to.value))
  const bad = inside.find(({ does }) => notContinuous.includes(does) || slopeless.includes(does))
  if (bad) return { holds: false, at: bad }
  const unsettled = inside.find(({ does }) => does === 'unsettled')
  return { holds: unsettled || open ? null : true, at: unsettled ?? null }
}

/** An end of a span or a number: its value, and its form where it hangs on no slider. */
export interface Given {
  value: number
  exact: Tree | null
}
const formOf = ({ value, exact }: Given): Tree => exact ?? exactly(decimalOfNumber(value))

/** The values at both ends, the change between them and the average rate, as exactly as can be. */
export interface EndFacts {
  values: [Const | null, Const | null]
  /** The sign of f(b) − f(a); null where it cannot be told, or a value is missing. */
  change: -1 | 0 | 1 | null
  /** (f(b) − f(a))/(b − a), as a number and as a constant function; null where a value is missing. */
  rate: { number: Const; f: RealFunction } | null
}

export function endFacts(f: RealFunction, ends: readonly [Given, Given]): EndFacts {
  const tree = withValues(f.tree, f.parameters)
  const constants = new Constants({ variable: '', enclosure: I.point(0), zeros: new Set() })
  const [a, b] = ends.map((end) => {
    const found = valueAtPlace(tree, f.variable, formOf(end), constants)
    return found === 'unsure' ? null : found
  }) as [Const | null, Const | null]
  if (!a || !b) return { values: [a, b], change: null, rate: null }
  const rise = simplify(sum(b.tree, negate(a.tree)))
  const run = simplify(sum(formOf(ends[1]), negate(formOf(ends[0]))))
  const rate = simplify(quotient(rise, run))
  const known = compileTree(rate, { variable: f.variable })
  const [lo, hi] = known.enclose(0, 0)
  return {
    values: [a, b],
    change: signIn(rise, constants),
    rate: { number: { tree: rate, range: { lo, hi } }, f: known },
  }
}

/** Which side of a level a value lies on; null where that cannot be told. */
export function sideOf(value: Const, level: Given): -1 | 0 | 1 | null {
  const constants = new Constants({ variable: '', enclosure: I.point(0), zeros: new Set() })
  return signIn(simplify(sum(value.tree, negate(formOf(level)))), constants)
}

function signIn(tree: Tree, constants: Constants): -1 | 0 | 1 | null {
  try {
    return signOf(constants.of(tree))
  } catch (error) {
    if (error instanceof Unsure) return null
    throw error
  }
}

/** What the tests by derivatives say of a critical point. */
export interface Tested {
  x: number
  enclosure: readonly [number, number]
  /** What f does there; the tests want it continuous, the second one smooth. */
  does: PlaceKind
  /** The signs of f′ beside it: 0 where it is 0 all along, null where not settled. */
  before: -1 | 0 | 1 | null
  after: -1 | 0 | 1 | null
  /** f′′ there: NaN where it has no value, and its sign, null where that is not settled. */
  bend: number
  bendSign: -1 | 0 | 1 | null
}

export function tested(
  f: RealFunction,
  bends: RealFunction,
  found: Examination,
  [from, to]: readonly [number, number],
): Tested[] {
  const signBeside = (x: number, end: 0 | 1): -1 | 0 | 1 | null => {
    const touches = (all: readonly (readonly [number, number])[]) =>
      all.some((s) => near(s[end], x) || (s[0] < x && x < s[1]))
    if (touches(found.rising)) return 1
    if (touches(found.falling)) return -1
    return touches(found.level) ? 0 : null
  }
  return found.criticalPoints
    .filter(({ x }) => x > from && x < to && !near(x, from) && !near(x, to))
    .map(({ x, enclosure }): Tested => {
      const isBreak = found.breaks.some((b) => near(b.x, x))
      const does = isBreak ? lookAtPlace(f, x).kind : 'smooth'
      const [lo, hi] = bends.enclose(enclosure[0], enclosure[1])
      const bend = bends.value(x)
      const bendSign = lo > 0 ? 1 : hi < 0 ? -1 : lo === 0 && hi === 0 ? 0 : null
      return {
        x,
        enclosure,
        does,
        before: signBeside(x, 1),
        after: signBeside(x, 0),
        bend,
        bendSign,
      }
    })
}
