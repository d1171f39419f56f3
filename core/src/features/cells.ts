import { differentiate } from '../algebra/differentiate'
import { cancelFreely, simplify } from '../algebra/simplify'
import type { Interval } from '../arithmetic/intervals'
import { dependsOn, keyOf, type Tree } from '../formula/tree'
import { certainSign, type Sign } from './sign'
import { insideOf } from './splits'
import { settledAt } from './settled'
import type { Split, Stretch } from './split'
import type { Budget, Steps } from './budget'
import type { Zero, ZeroSearch } from './zero'
import { zerosWithin } from './zeros'
import type { Cell, Course, Mark } from './examination'

/** The split between a stretch and the one before it. */
export function markBefore({ from }: Stretch, splits: readonly Split[]): Mark {
  const split = splits.find((s) => s.enclosure.hi === from)
  if (!split) throw new RangeError(`two stretches meet at ${from}, where nothing breaks`)
  return { enclosure: split.enclosure, split, proven: true }
}

/** f′ and f″ on a stretch, as formulas. */
interface Slopes {
  slope: Tree
  bend: Tree
}

/** On a stretch no denominator is 0, so what cancels may go, and √(u²) is u or −u. */
export function createSlopes(variable: string): (stretch: Stretch) => Slopes | null {
  const derivatives = new Map<Tree, Tree>()
  const derivativeOf = (tree: Tree) => {
    let slope = derivatives.get(tree)
    if (!slope) {
      slope = simplify(cancelFreely(differentiate(tree, variable)))
      derivatives.set(tree, slope)
    }
    return slope
  }
  const settled = new Map<string, Tree>()
  return (stretch) => {
    if (!stretch.tree) return null
    const whole = derivativeOf(stretch.tree)
    const there = settledAt(whole, variable, insideOf(stretch))
    const key = keyOf(there)
    const slope = there === whole ? whole : (settled.get(key) ?? simplify(cancelFreely(there)))
    settled.set(key, slope)
    return { slope, bend: derivativeOf(slope) }
  }
}

interface MarksWithin {
  marks: Mark[]
  unresolved: Interval[]
  /** Those of f′ and those of f″. */
  open: { slope: readonly Interval[]; bend: readonly Interval[] }
  /** f′ is 0 throughout. */
  level: boolean
  /** f″ is. */
  straight: boolean
}

const nothingOpen = { slope: [], bend: [] }

/** Zeros of f′ and f″ inside a stretch, in order. */
export function* marksWithin(
  stretch: Stretch,
  slopes: Slopes | null,
  variable: string,
  budget: Budget,
): Steps<MarksWithin> {
  if (!stretch.tree || !slopes || !dependsOn(stretch.tree, variable)) {
    return { marks: [], unresolved: [], open: nothingOpen, level: true, straight: true }
  }
  const searches: ZeroSearch[] = []
  for (const t of [slopes.slope, slopes.bend]) {
    searches.push(yield* zerosWithin(t, variable, stretch.from, stretch.to, budget))
  }
  const zeros: Zero[] = searches.flatMap((s) => s.zeros)
  zeros.sort((p, q) => p.enclosure.lo - q.enclosure.lo)
  const marks: Mark[] = []
  for (const { enclosure, proven } of zeros) {
    const last = marks.at(-1)
    // f′ and f″ may vanish at one place.
    if (last && enclosure.lo <= last.enclosure.hi) {
      marks[marks.length - 1] = {
        enclosure: enclosure.lo === enclosure.hi ? enclosure : last.enclosure,
        split: null,
        proven: last.proven && proven,
      }
    } else marks.push({ enclosure, split: null, proven })
  }
  const [first, second] = searches as [ZeroSearch, ZeroSearch]
  return {
    marks,
    unresolved: searches.flatMap((s) => s.unresolved),
    open: { slope: first.unresolved, bend: second.unresolved },
    level: first.vanishes,
    straight: first.vanishes || second.vanishes,
  }
}

const noCourse: Course = { pieces: [], start: 0, end: 0 }

export const cellWithoutSlopes = {
  slope: null,
  rise: noCourse,
  bend: noCourse,
  level: false,
  straight: false,
  settled: true,
} as const

export function cellsOf(
  stretch: Stretch,
  slopes: Slopes | null,
  { marks, open, level, straight }: MarksWithin,
  variable: string,
): Cell[] {
  const edges = [
    stretch.from,
    ...marks.flatMap(({ enclosure }) => [enclosure.lo, enclosure.hi]),
    stretch.to,
  ]
  const cells: Cell[] = []
  for (let i = 0; i < edges.length; i += 2) {
    const [from, to] = [edges[i]!, edges[i + 1]!]
    const { tree } = stretch
    const course = (t: Tree, gaps: readonly Interval[]) => courseOn(t, variable, { from, to }, gaps)
    const rise = slopes && !level ? course(slopes.slope, open.slope) : noCourse
    const bend = slopes && !straight ? course(slopes.bend, open.bend) : noCourse
    cells.push({
      from,
      to,
      tree,
      slope: slopes && slopes.slope,
      rise,
      bend,
      level: tree !== null && level,
      straight: tree !== null && straight,
      settled: [...rise.pieces, ...bend.pieces].every(({ sign }) => sign !== 0),
    })
  }
  return cells
}

/** The signs of a formula on a cell, piece by piece between what is open of its zeros. */
function courseOn(
  tree: Tree,
  variable: string,
  { from, to }: { from: number; to: number },
  open: readonly Interval[],
): Course {
  const gaps = open.filter(({ lo, hi }) => hi > from && lo < to).sort((p, q) => p.lo - q.lo)
  const starts = [from, ...gaps.map((gap) => gap.hi)]
  const ends = [...gaps.map((gap) => gap.lo), to]
  const pieces = starts.flatMap((a, i) => {
    const b = ends[i]!
    return a < b ? [{ from: a, to: b, sign: signOn(tree, variable, a, b) }] : []
  })
  const [first, last] = [pieces[0], pieces.at(-1)]
  return {
    pieces,
    start: first?.from === from ? first.sign : 0,
    end: last?.to === to ? last.sign : 0,
  }
}

/** The one sign a formula has on a cell: that of a place inside where it is certain. */
function signOn(tree: Tree, variable: string, from: number, to: number): Sign {
  for (const share of [0.5, 0.31, 0.73, 0.11, 0.89, 0.02, 0.98]) {
    const sign = certainSign(tree, variable, from + share * (to - from))
    if (sign !== 0) return sign
  }
  return 0
}
