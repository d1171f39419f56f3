import { differentiate } from '../algebra/differentiate'
import { cancelFreely, simplify } from '../algebra/simplify'
import { compileBoxes } from '../evaluate/enclosures'
import type { RealFunction } from '../evaluate/compile'
import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'
import { withValues } from '../evaluate/withValues'
import { countParts, dependsOn, keyOf, type Tree } from '../formula/tree'
import { type OneSided, sideLimit } from './limits'
import { certainSign, type Sign } from './sign'
import {
  insideOf,
  settledAt,
  type Split,
  type Stretch,
  stretchesOf,
  valueAtSplit,
  withElbowRoom,
  zerosOn,
} from './splits'
import {
  type Budget,
  budgetOf,
  finish,
  type Steps,
  type Zero,
  type ZeroSearch,
  zerosWithin,
} from './zeros'

export interface Feature {
  x: number
  value: number
  /** Surely holds the place. */
  enclosure: [lo: number, hi: number]
  /** False where the digits say so and no proof does. */
  proven: boolean
}
export interface TurningPoint extends Feature {
  kind: 'maximum' | 'minimum'
  /** f′ is 0 there; false where it is missing, as at a kink. */
  vanishes: boolean
}
export interface Inflection extends Feature {
  /** False at a kink at which the concavity changes. */
  hasTangent: boolean
  /** f″ is 0 there; false where it is missing or jumps over 0. */
  vanishes: boolean
}
export type BreakKind =
  'jump' | 'kink' | 'cusp' | 'vertical' | 'hole' | 'pole' | 'domain-end' | 'oscillation'
export interface Break {
  x: number
  kind: BreakKind
  enclosure: [lo: number, hi: number]
  /** Set for an end of the domain that is a place of its own, with no values beside it. */
  isolated?: true
}
export interface Extreme {
  x: number
  value: number
  at: Feature[]
}

export interface Examination {
  zeros: Feature[]
  criticalPoints: Feature[]
  turningPoints: TurningPoint[]
  inflections: Inflection[]
  breaks: Break[]
  rising: [number, number][]
  falling: [number, number][]
  concaveUp: [number, number][]
  concaveDown: [number, number][]
  /** Absolute extremes on the closed span, ends included; null where none is attained. */
  highest: Extreme | null
  lowest: Extreme | null
  /** The places that decide the extremes: the ends and the critical points. */
  candidates: Feature[]
  /** Stretches on which the function is constant. */
  level: [number, number][]
  /** Every list above is proven to be whole. */
  complete: boolean
  /** Stretches that could not be settled. */
  unresolved: [number, number][]
  /** Boxes looked at, as a measure of the work. */
  boxes: number
}

/** A place between two cells, in order along the span. */
interface Mark {
  enclosure: Interval
  /** Where the formula may break; null at a zero of a derivative inside a stretch. */
  split: Split | null
  proven: boolean
}

/** A stretch without marks inside: f′ and f″ keep their signs on it. */
interface Cell {
  from: number
  to: number
  tree: Tree | null
  /** f′ as a formula. */
  slope: Tree | null
  /** Signs of f′ and f″; 0 where it is 0 throughout, or not settled. */
  rise: Sign
  bend: Sign
  /** f′ is 0 throughout. */
  level: boolean
  settled: boolean
}

/**
 * Everything about f on the closed span [from, to]: zeros, critical points, turning points,
 * inflections, breaks, where it rises, falls and bends, and its absolute extremes, each list with
 * proof that it is whole, or with the stretches that could not be settled. The definitions are those
 * of calculus texts: a turning point is an interior point where f is continuous and f′ changes sign;
 * a critical point one of the domain where f′ is zero or missing; an inflection one where f is
 * continuous and its concavity changes. Places are enclosed to 1e-9 · max(1, |x|) or better. Ends
 * the wrong way round are put right; equal or infinite ones throw RangeError. A formula of more than
 * 4,000 parts is not examined: its whole span is unresolved.
 */
export const examine = (f: RealFunction, from: number, to: number): Examination =>
  finish(examineInSteps(f, from, to))

/** The same in steps, so that a long examination can be stopped; it yields the share of its budget. */
export function* examineInSteps(f: RealFunction, from: number, to: number): Steps<Examination> {
  const [a, b] = checkedSpan(from, to)
  const { variable } = f
  const tree = withValues(f.tree, f.parameters)
  const budget = budgetOf()
  if (countParts(tree) > longestExamined) return unsettled(a, b)
  const unresolved: Interval[] = []
  const whole = withElbowRoom(yield* stretchesOf(tree, variable, a, b, budget))
  unresolved.push(...whole.unresolved)

  const cells: Cell[] = []
  const marks: Mark[] = []
  const slopesOn = createSlopes(variable)
  for (const [i, stretch] of whole.stretches.entries()) {
    if (i > 0) marks.push(markBefore(stretch, whole.splits))
    const slopes = slopesOn(stretch)
    const inside = yield* marksWithin(stretch, slopes, variable, budget)
    unresolved.push(...inside.unresolved)
    cells.push(...cellsOf(stretch, slopes, inside, variable))
    marks.push(...inside.marks)
  }
  const zeros = yield* zerosOn(tree, variable, a, b, budget, { known: whole })
  unresolved.push(...zeros.unresolved)

  const study = { tree, variable, f, from: a, to: b, cells, marks }
  const joints = yield* jointsOf(study, budget)
  const ends = endFeatures(study, whole.splits)
  const breaks = breaksOf(study, whole.splits, joints)
  // What a place is, when its sides cannot be told, is not settled.
  unresolved.push(...joints.flatMap((joint) => (joint.settled ? [] : [joint.mark.enclosure])))
  for (const cell of cells) if (!cell.settled) unresolved.push({ lo: cell.from, hi: cell.to })

  const criticalPoints = joints.flatMap(({ critical }) => (critical ? [critical] : []))
  const turningPoints = joints.flatMap(({ turning }) => (turning ? [turning] : []))
  const inflections = joints.flatMap(({ inflection }) => (inflection ? [inflection] : []))
  const domainEnds = joints.flatMap(({ end }) => (end ? [end] : []))
  const candidates = [...ends, ...domainEnds, ...criticalPoints].sort((p, q) => p.x - q.x)
  const runs = (
    sign: -1 | 1,
    of: (cell: Cell) => number,
    joins: (joint: Joint) => boolean,
  ): [number, number][] => joinedRuns(cells, joints, sign, of, joins)
  const open = mergeOpen(unresolved)
  return {
    zeros: zeros.zeros.map((zero) => featureAt(study, zero)),
    criticalPoints,
    turningPoints,
    inflections,
    breaks,
    rising: runs(
      1,
      (c) => c.rise,
      (j) => j.continuous,
    ),
    falling: runs(
      -1,
      (c) => c.rise,
      (j) => j.continuous,
    ),
    concaveUp: runs(
      1,
      (c) => c.bend,
      (j) => j.continuous && j.slopeStep >= 0,
    ),
    concaveDown: runs(
      -1,
      (c) => c.bend,
      (j) => j.continuous && j.slopeStep <= 0,
    ),
    highest: extremeOf(study, candidates, joints, whole.splits, 1, open),
    lowest: extremeOf(study, candidates, joints, whole.splits, -1, open),
    candidates,
    level: runs(
      1,
      (c) => (c.level ? 1 : 0),
      (j) => j.continuous,
    ),
    complete: open.length === 0,
    unresolved: open,
    boxes: Math.ceil(budget.boxes),
  }
}

/** What decides the signs of f on a span: its zeros, and the places where it is missing or jumps. */
export type SignChanges = Pick<
  Examination,
  'zeros' | 'breaks' | 'complete' | 'unresolved' | 'boxes'
>

/**
 * Zeros of f on the closed span [from, to] and the breaks at which it may change its sign without
 * one, with the same proof as `examine` and without a look at its derivatives: kinks are not listed.
 */
export function* signChangesInSteps(f: RealFunction, from: number, to: number): Steps<SignChanges> {
  const [a, b] = checkedSpan(from, to)
  const { variable } = f
  const tree = withValues(f.tree, f.parameters)
  if (countParts(tree) > longestExamined) return unsettled(a, b)
  const budget = budgetOf()
  const whole = withElbowRoom(yield* stretchesOf(tree, variable, a, b, budget))
  const cells = whole.stretches.map((stretch): Cell => ({ ...stretch, ...cellWithoutSlopes }))
  const marks = whole.stretches.slice(1).map((stretch) => markBefore(stretch, whole.splits))
  const study = { tree, variable, f, from: a, to: b, cells, marks }
  const joints = yield* jointsOf(study, budget)
  const zeros = yield* zerosOn(tree, variable, a, b, budget, { known: whole })
  const open = mergeOpen([
    ...whole.unresolved,
    ...zeros.unresolved,
    ...joints.flatMap((joint) => (joint.settled ? [] : [joint.mark.enclosure])),
  ])
  return {
    zeros: zeros.zeros.map((zero) => featureAt(study, zero)),
    breaks: breaksOf(study, whole.splits, joints),
    complete: open.length === 0,
    unresolved: open,
    boxes: Math.ceil(budget.boxes),
  }
}

/** The split between a stretch and the one before it. */
function markBefore({ from }: Stretch, splits: readonly Split[]): Mark {
  const split = splits.find((s) => s.enclosure.hi === from)
  if (!split) throw new RangeError(`two stretches meet at ${from}, where nothing breaks`)
  return { enclosure: split.enclosure, split, proven: true }
}

function* jointsOf(study: Study, budget: Budget): Steps<Joint[]> {
  const { marks, cells } = study
  const joints: Joint[] = []
  for (const [i, mark] of marks.entries()) {
    yield budget.boxes / budget.most
    if (mark.split) budget.joints += 1
    const joint = plainJoint(mark)
    joints.push(
      budget.joints > mostJoints
        ? { ...joint, continuous: false, settled: false }
        : jointAt(study, mark, cells[i]!, cells[i + 1]!, joint),
    )
  }
  return joints
}

const breaksOf = (study: Study, splits: readonly Split[], joints: readonly Joint[]): Break[] =>
  [
    ...edgeBreaks(study, splits),
    ...joints.flatMap((joint) => (joint.break ? [joint.break] : [])),
  ].sort((p, q) => p.x - q.x)

/** At more places than this at which its formula breaks it is not told what f does there. */
const mostJoints = 300
/** A formula with more parts than this is not examined: nothing of it is settled. */
const longestExamined = 4000

const unsettled = (from: number, to: number): Examination => ({
  zeros: [],
  criticalPoints: [],
  turningPoints: [],
  inflections: [],
  breaks: [],
  rising: [],
  falling: [],
  concaveUp: [],
  concaveDown: [],
  highest: null,
  lowest: null,
  candidates: [],
  level: [],
  complete: false,
  unresolved: [[from, to]],
  boxes: 0,
})

export function checkedSpan(from: number, to: number): [number, number] {
  if (!Number.isFinite(from) || !Number.isFinite(to) || from === to) {
    throw new RangeError(`a span needs two different finite ends: ${from} to ${to}`)
  }
  return from < to ? [from, to] : [to, from]
}

/** f′ and f″ on a stretch, as formulas. */
interface Slopes {
  slope: Tree
  bend: Tree
}

/** On a stretch no denominator is 0, so what cancels may go, and √(u²) is u or −u. */
function createSlopes(variable: string): (stretch: Stretch) => Slopes | null {
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

interface Study {
  tree: Tree
  variable: string
  f: RealFunction
  from: number
  to: number
  cells: readonly Cell[]
  marks: readonly Mark[]
}

interface MarksWithin {
  marks: Mark[]
  unresolved: Interval[]
  /** f′ is 0 throughout. */
  level: boolean
  /** f″ is. */
  straight: boolean
}

/** Zeros of f′ and f″ inside a stretch, in order. */
function* marksWithin(
  stretch: Stretch,
  slopes: Slopes | null,
  variable: string,
  budget: Budget,
): Steps<MarksWithin> {
  if (!stretch.tree || !slopes || !dependsOn(stretch.tree, variable)) {
    return { marks: [], unresolved: [], level: true, straight: true }
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
    level: first.vanishes,
    straight: first.vanishes || second.vanishes,
  }
}

const cellWithoutSlopes = {
  slope: null,
  rise: 0,
  bend: 0,
  level: false,
  settled: true,
} as const

function cellsOf(
  stretch: Stretch,
  slopes: Slopes | null,
  { marks, level, straight }: MarksWithin,
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
    const rise = slopes && !level ? signOn(slopes.slope, variable, from, to) : 0
    const bend = slopes && !straight ? signOn(slopes.bend, variable, from, to) : 0
    cells.push({
      from,
      to,
      tree,
      slope: slopes && slopes.slope,
      rise,
      bend,
      level: tree !== null && level,
      settled: tree === null || ((level || rise !== 0) && (straight || bend !== 0)),
    })
  }
  return cells
}

/** The one sign a formula has on a cell: that of a place inside where it is certain. */
function signOn(tree: Tree, variable: string, from: number, to: number): Sign {
  for (const share of [0.5, 0.31, 0.73, 0.11, 0.89, 0.02, 0.98]) {
    const sign = certainSign(tree, variable, from + share * (to - from))
    if (sign !== 0) return sign
  }
  return 0
}

/** What f does at a mark. */
interface Joint {
  mark: Mark
  continuous: boolean
  /** The sign of right slope − left slope; 0 where f has a slope. */
  slopeStep: number
  critical: Feature | null
  turning: TurningPoint | null
  inflection: Inflection | null
  break: Break | null
  /** The place where the domain ends, if it belongs to it. */
  end: Feature | null
  /** Limits of f on both sides, for the extremes. */
  limits: OneSided[]
  settled: boolean
}

const plainJoint = (mark: Mark): Joint => ({
  mark,
  continuous: true,
  slopeStep: 0,
  critical: null,
  turning: null,
  inflection: null,
  break: null,
  end: null,
  limits: [],
  settled: true,
})

function jointAt(study: Study, mark: Mark, left: Cell, right: Cell, base: Joint): Joint {
  const { enclosure, split } = mark
  if (split) return jointAtSplit(study, mark, left, right, base)
  const feature = featureAt(study, { enclosure, proven: mark.proven })
  const flat = vanishesAt(left.slope!, study.variable, enclosure)
  const turns = left.rise * right.rise < 0
  const bends = left.bend * right.bend < 0
  return {
    ...base,
    critical: flat ? feature : null,
    turning: turns
      ? { ...feature, kind: left.rise > 0 ? 'maximum' : 'minimum', vanishes: true }
      : null,
    inflection: bends ? { ...feature, hasTangent: true, vanishes: true } : null,
  }
}

/** Whether a formula may be 0 on a narrow enclosure that was found as a zero of it or another. */
function vanishesAt(tree: Tree, variable: string, enclosure: Interval): boolean {
  const [value] = compileBoxes(tree, variable)(enclosure, 1, I.noNotes())
  return I.holdsZero(value!)
}

function jointAtSplit(study: Study, mark: Mark, left: Cell, right: Cell, base: Joint): Joint {
  const { tree, variable } = study
  const split = mark.split!
  const { enclosure } = split
  const value = valueAtSplit(tree, variable, split)
  const x = I.middle(enclosure)
  const limitOf = (cell: Cell, side: -1 | 1, of: 'tree' | 'slope') =>
    cell[of] ? sideLimit(cell[of], variable, split, side, cell) : null
  const [before, after] = [limitOf(left, -1, 'tree'), limitOf(right, 1, 'tree')]
  const found = (kind: BreakKind): Break => ({ x, kind, enclosure: [enclosure.lo, enclosure.hi] })
  const limits = [before, after].filter((l) => l !== null)
  const feature = value && featureWith(x, value, enclosure)
  // On one side there is nothing: the domain ends here.
  if (!before || !after) {
    const only = before ?? after
    return {
      ...base,
      continuous: false,
      limits,
      critical: null,
      end: feature,
      break: only ? found('domain-end') : value ? { ...found('domain-end'), isolated: true } : null,
      settled: only?.kind !== 'unsettled',
    }
  }
  if (before.kind === 'none' || after.kind === 'none') {
    return {
      ...base,
      continuous: false,
      limits,
      critical: feature,
      break: found('oscillation'),
      settled: false,
    }
  }
  if (before.kind === 'unsettled' || after.kind === 'unsettled') {
    return { ...base, continuous: false, limits, critical: feature, settled: false }
  }
  if (before.kind === 'infinite' || after.kind === 'infinite') {
    return { ...base, continuous: false, limits, critical: feature, break: found('pole') }
  }
  if (!alike(before.range, after.range)) {
    return { ...base, continuous: false, limits, critical: feature, break: found('jump') }
  }
  if (!value || !alike(value, before.range)) {
    return { ...base, continuous: false, limits, critical: feature, break: found('hole') }
  }
  // Continuous, and nobody asks for more.
  if (!left.slope || !right.slope) return { ...base, limits }
  const [slopeBefore, slopeAfter] = [limitOf(left, -1, 'slope')!, limitOf(right, 1, 'slope')!]
  const turns = left.rise * right.rise < 0
  const bends = left.bend * right.bend < 0
  const continuous = {
    ...base,
    limits,
    turning:
      turns && feature
        ? {
            ...feature,
            kind: left.rise > 0 ? ('maximum' as const) : ('minimum' as const),
            vanishes: false,
          }
        : null,
  }
  const steep = [slopeBefore, slopeAfter].filter((s) => s.kind === 'infinite')
  if (steep.length > 0) {
    const [p, q] = [slopeBefore, slopeAfter]
    const both = p.kind === 'infinite' && q.kind === 'infinite'
    const kind: BreakKind = !both ? 'kink' : p.sign === q.sign ? 'vertical' : 'cusp'
    const step = slopeSign(q) - slopeSign(p)
    return {
      ...continuous,
      slopeStep: kind === 'vertical' ? 0 : step,
      critical: feature,
      break: found(kind),
      inflection:
        bends && feature ? { ...feature, hasTangent: kind === 'vertical', vanishes: false } : null,
    }
  }
  if (slopeBefore.kind !== 'value' || slopeAfter.kind !== 'value') {
    return { ...continuous, critical: feature, settled: false }
  }
  const smooth = alike(slopeBefore.range, slopeAfter.range)
  const step = smooth ? 0 : I.middle(slopeAfter.range) - I.middle(slopeBefore.range)
  return {
    ...continuous,
    turning: continuous.turning && { ...continuous.turning, vanishes: smooth },
    slopeStep: Math.sign(step),
    critical: !smooth || I.holdsZero(widened(slopeBefore.range)) ? feature : null,
    break: smooth ? null : found('kink'),
    inflection: bends && feature ? { ...feature, hasTangent: smooth, vanishes: false } : null,
  }
}

const slopeSign = (limit: OneSided) =>
  limit.kind === 'infinite'
    ? limit.sign * Infinity
    : limit.kind === 'value'
      ? I.middle(limit.range)
      : NaN

/** A slope that is 0 but for rounding is 0. */
const widened = ({ lo, hi }: Interval): Interval => ({ lo: lo - 1e-13, hi: hi + 1e-13 })

/**
 * Whether two enclosures may be of one number: they meet, or nearly do. 1e-9 of the size is what a
 * place that is only enclosed leaves open.
 */
function alike(a: Interval, b: Interval): boolean {
  const slack = 1e-9 * Math.max(1, Math.abs(I.middle(a)))
  return a.lo <= b.hi + slack && b.lo <= a.hi + slack
}

function featureWith(x: number, value: Interval, enclosure: Interval, proven = true): Feature {
  return { x, value: I.middle(value), enclosure: [enclosure.lo, enclosure.hi], proven }
}

/** A place inside its enclosure with the value of f there. */
function featureAt(
  study: Study,
  { enclosure, proven }: Pick<Zero, 'enclosure' | 'proven'>,
): Feature {
  const x = Math.min(study.to, Math.max(study.from, I.middle(enclosure)))
  const direct = study.f.value(x)
  const split = study.marks.find((m) => m.split?.enclosure === enclosure)?.split
  const exact = split ? valueAtSplit(study.tree, study.variable, split) : null
  const value = exact ? I.middle(exact) : direct
  return { x, value, enclosure: [enclosure.lo, enclosure.hi], proven }
}

const splitAt = (splits: readonly Split[], x: number) =>
  splits.find((s) => s.enclosure.lo <= x && x <= s.enclosure.hi)

/** The ends of the span at which f has a value. */
function endFeatures(study: Study, splits: readonly Split[]): Feature[] {
  return [study.from, study.to].flatMap((x) => {
    const split = splitAt(splits, x)
    if (split) {
      const value = valueAtSplit(study.tree, study.variable, split)
      return value ? [featureWith(x, value, I.point(x))] : []
    }
    const direct = study.f.value(x)
    return Number.isFinite(direct) ? [featureWith(x, I.point(direct), I.point(x))] : []
  })
}

/** An end of the span at which f has no value although it is defined beside it. */
function edgeBreaks(study: Study, splits: readonly Split[]): Break[] {
  const { from, to, cells } = study
  return [
    { x: from, cell: cells[0] },
    { x: to, cell: cells.at(-1) },
  ].flatMap(({ x, cell }): Break[] => {
    const split = splitAt(splits, x)
    if (!split || !cell?.tree) return []
    const side = x === from ? 1 : -1
    const limit = sideLimit(cell.tree, study.variable, split, side, cell)
    const enclosure: [number, number] = [split.enclosure.lo, split.enclosure.hi]
    if (limit.kind === 'none') return [{ x, kind: 'oscillation', enclosure }]
    const value = valueAtSplit(study.tree, study.variable, split)
    if (value && limit.kind === 'value') {
      return alike(value, limit.range) ? [] : [{ x, kind: 'jump', enclosure }]
    }
    // What lies beyond the span tells a pole or a hole from an end of the domain.
    const beyond = study.f.value(x - side * 1e-6 * Math.max(1, Math.abs(x)))
    if (!Number.isFinite(beyond)) return [{ x, kind: 'domain-end', enclosure }]
    const kinds = { infinite: 'pole', value: 'hole', unsettled: 'domain-end' } as const
    return [{ x, kind: kinds[limit.kind], enclosure }]
  })
}

/** Maximal closed intervals of cells with one sign, merged where their joints let them. */
function joinedRuns(
  cells: readonly Cell[],
  joints: readonly Joint[],
  sign: -1 | 1,
  of: (cell: Cell) => number,
  joins: (joint: Joint) => boolean,
): [number, number][] {
  const runs: [number, number][] = []
  let open = false
  cells.forEach((cell, i) => {
    if (of(cell) !== sign) {
      open = false
      return
    }
    const joint = joints[i - 1]
    const at = joint ? I.middle(joint.mark.enclosure) : cell.from
    const end = joints[i] ? I.middle(joints[i]!.mark.enclosure) : cell.to
    if (open && joint && joins(joint)) runs.at(-1)![1] = end
    else runs.push([at, end])
    open = true
  })
  return runs
}

/** Values that agree to this share of their size are one: their places attain it together. */
const tie = 1e-12

function extremeOf(
  study: Study,
  candidates: readonly Feature[],
  joints: readonly Joint[],
  splits: readonly Split[],
  sign: 1 | -1,
  open: readonly [number, number][],
): Extreme | null {
  if (joints.some((j) => !j.settled)) return null
  const level = study.cells
    .filter((c) => c.level)
    .map((c): Feature => {
      const x = c.from + (c.to - c.from) / 2
      return { x, value: study.f.value(x), enclosure: [c.from, c.to], proven: true }
    })
  const all = [...candidates, ...level].filter((c) => Number.isFinite(c.value))
  if (all.length === 0) return null
  const best = all.reduce((p, q) => (sign * q.value > sign * p.value ? q : p))
  const slack = tie * Math.max(1, Math.abs(best.value))
  // On a stretch that is not settled f must be proven to stay below, or above.
  const mayPass = open.some(([lo, hi]) => {
    const [least, greatest] = study.f.enclose(lo, hi)
    return !(sign > 0 ? greatest <= best.value + slack : least >= best.value - slack)
  })
  if (mayPass) return null
  // A limit beyond every value that is taken: the function comes near and never gets there.
  const unattained = [...joints.flatMap((j) => j.limits), ...endLimits(study, splits)].some(
    (limit) =>
      limit.kind === 'infinite'
        ? limit.sign === sign
        : limit.kind === 'value' && sign * I.middle(limit.range) > sign * best.value + slack,
  )
  if (unattained) return null
  const at = all.filter((c) => Math.abs(c.value - best.value) <= slack)
  return { x: at[0]!.x, value: best.value, at }
}

/** What f tends to at the ends of the span. */
function endLimits(study: Study, splits: readonly Split[]): OneSided[] {
  const { cells, variable, from, to } = study
  const [first, last] = [cells[0], cells.at(-1)]
  const limit = (cell: Cell | undefined, side: -1 | 1, x: number): OneSided[] => {
    if (!cell?.tree) return []
    const split = splitAt(splits, x) ?? { enclosure: I.point(x), zeros: new Set<string>() }
    return [sideLimit(cell.tree, variable, split, side, cell)]
  }
  return [...limit(first, 1, from), ...limit(last, -1, to)]
}

function mergeOpen(open: readonly Interval[]): [number, number][] {
  const sorted = [...open].sort((a, b) => a.lo - b.lo)
  const merged: [number, number][] = []
  for (const { lo, hi } of sorted) {
    const last = merged.at(-1)
    if (last && lo <= last[1]) last[1] = Math.max(last[1], hi)
    else merged.push([lo, hi])
  }
  return merged
}
